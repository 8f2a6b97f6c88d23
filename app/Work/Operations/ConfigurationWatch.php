<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Models\Setup\CompanySettings;
use Illuminate\Container\Container;

/**
 * For programs that run for days: as soon as somebody has changed a record type, or anything that rules name, all that the program made
 * from what was there before is made anew. What counts up is in one row (App\Store\Remembered says for what), so that it costs one look.
 */
final class ConfigurationWatch
{
    private ?string $seen = null;

    public function __construct(private readonly Container $app)
    {
    }

    public function look(): void
    {
        $version = CompanySettings::versions();
        if ($this->seen !== null && $this->seen !== $version) {
            $this->app->forgetScopedInstances();
        }
        $this->seen = $version;
    }

    /** Whether something was changed since the last look: what is claimed by then is left for the next. */
    public function hasMoved(): bool
    {
        return CompanySettings::versions() !== $this->seen;
    }
}
