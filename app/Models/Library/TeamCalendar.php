<?php

declare(strict_types=1);

namespace App\Models\Library;

use App\Models\LedgerModel;

/**
 * By which calendar a team goes.
 *
 * @property string $team
 * @property int $calendar_id
 */
final class TeamCalendar extends LedgerModel
{
    protected $table = 'team_calendars';

    public $incrementing = false;

    protected $primaryKey = 'team';

    protected $keyType = 'string';

    protected $casts = [
        'calendar_id' => 'integer',
    ];
}
