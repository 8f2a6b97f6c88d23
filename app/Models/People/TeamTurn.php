<?php

declare(strict_types=1);

namespace App\Models\People;

use App\Models\LedgerModel;

/**
 * Whose turn it was last in a team.
 *
 * @property string $team
 * @property int $person_id
 */
final class TeamTurn extends LedgerModel
{
    protected $table = 'team_turns';

    public $incrementing = false;

    protected $primaryKey = 'team';

    protected $keyType = 'string';

    protected $casts = [
        'person_id' => 'integer',
    ];
}
