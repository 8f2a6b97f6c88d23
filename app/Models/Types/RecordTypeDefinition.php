<?php

declare(strict_types=1);

namespace App\Models\Types;

use App\Models\Casts\Json;
use App\Models\LedgerModel;

/**
 * A record type as it was defined; its records have a table of their own.
 *
 * @property string $name
 * @property int $position
 * @property int $version
 * @property array<array-key, mixed> $definition
 */
final class RecordTypeDefinition extends LedgerModel
{
    protected $table = 'record_types';

    public $incrementing = false;

    protected $primaryKey = 'name';

    protected $keyType = 'string';

    protected $casts = [
        'position' => 'integer',
        'version' => 'integer',
        'definition' => Json::class,
    ];
}
