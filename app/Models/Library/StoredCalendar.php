<?php

declare(strict_types=1);

namespace App\Models\Library;

use App\Models\Casts\Json;
use App\Models\LedgerModel;

/**
 * Working hours and holidays, of those who go by them.
 *
 * @property int $id
 * @property string $name
 * @property string $time_zone
 * @property array<array-key, mixed> $hours
 * @property array<array-key, mixed> $holidays
 * @property int $version
 */
final class StoredCalendar extends LedgerModel
{
    protected $table = 'calendars';

    protected $casts = [
        'hours' => Json::class,
        'holidays' => Json::class,
        'version' => 'integer',
    ];
}
