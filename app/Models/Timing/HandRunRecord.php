<?php

declare(strict_types=1);

namespace App\Models\Timing;

use App\Models\LedgerModel;

/**
 * One record of a run by hand, and what came of it.
 *
 * @property int $run_id
 * @property int $record_id
 * @property string $result
 * @property string $said
 * @property ?int $entry_id
 */
final class HandRunRecord extends LedgerModel
{
    protected $table = 'run_records';

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'run_id' => 'integer',
        'record_id' => 'integer',
        'entry_id' => 'integer',
    ];
}
