<?php

declare(strict_types=1);

namespace App\Work;

use App\Models\CompanySettings;
use Illuminate\Contracts\Container\Container;

/** For processes that live long: as soon as somebody changes a record type, all that was made from the old ones is made anew. */
final class SchemaWatch
{
    private ?int $seen = null;

    public function __construct(private readonly Container $app)
    {
    }

    public function look(): void
    {
        $version = (int) CompanySettings::query()->whereKey(CompanySettings::ID)->value('schema_version');
        if ($this->seen !== null && $this->seen !== $version) {
            $this->app->forgetScopedInstances();
        }
        $this->seen = $version;
    }
}
