<?php

declare(strict_types=1);

namespace App\Models\Library;

use App\Models\Casts\Json;
use App\Models\LedgerModel;

/**
 * A route of sign-offs that rules use by its name.
 *
 * @property int $id
 * @property string $name
 * @property string $record_type
 * @property list<array<string, mixed>> $steps
 * @property int $version
 */
final class StoredRoute extends LedgerModel
{
    protected $table = 'sign_off_routes';

    protected $casts = [
        'steps' => Json::class,
        'version' => 'integer',
    ];
}
