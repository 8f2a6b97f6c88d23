<?php

declare(strict_types=1);

namespace App\Models\Lists;

use App\Models\Import\RowResult;
use App\Models\LedgerModel;

/**
 * One record of work on many, and what became of it.
 *
 * @property int $job_id
 * @property int $place in the selection, or the line of the file
 * @property ?int $record_id
 * @property ?int $entry_id
 * @property RowResult $result
 * @property string $said
 */
final class BulkRow extends LedgerModel
{
    protected $table = 'bulk_rows';

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'job_id' => 'integer',
        'place' => 'integer',
        'record_id' => 'integer',
        'entry_id' => 'integer',
        'result' => RowResult::class,
    ];
}
