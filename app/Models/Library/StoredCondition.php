<?php

declare(strict_types=1);

namespace App\Models\Library;

use App\Models\Casts\Json;
use App\Models\LedgerModel;

/**
 * A condition that rules use by its name.
 *
 * @property int $id
 * @property string $record_type
 * @property string $name
 * @property array<array-key, mixed> $file
 * @property int $version
 */
final class StoredCondition extends LedgerModel
{
    protected $table = 'named_conditions';

    protected $casts = [
        'file' => Json::class,
        'version' => 'integer',
    ];
}
