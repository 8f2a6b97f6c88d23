<?php

declare(strict_types=1);

namespace App\Evidence\Lists;

use App\Models\Import\RowResult;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkRow;
use App\Store\Records\SavedRow;
use App\Store\Sql\Batch;

/** Notes what became of the rows of a job. */
final class BulkResults
{
    private const LONGEST_SAID = 300;

    /** @param  array<int, SavedRow>  $rows  by place */
    public function note(BulkJob $job, array $rows): void
    {
        $written = [];
        $counts = ['done' => count($rows), 'saved' => 0, 'refused' => 0];
        foreach ($rows as $place => $row) {
            $counts['saved'] += in_array($row->result, [RowResult::Created, RowResult::Changed], true) ? 1 : 0;
            $counts['refused'] += $row->result === RowResult::Refused ? 1 : 0;
            $written[] = [
                'job_id' => $job->id, 'place' => $place, 'record_id' => $row->record, 'entry_id' => $row->entry, 'result' => $row->result,
                'said' => mb_substr($row->said, 0, self::LONGEST_SAID),
            ];
        }
        Batch::insert(BulkRow::class, $written, ['record_id', 'entry_id', 'result', 'said']);
        BulkJob::query()->whereKey($job->id)->incrementEach($counts);
    }
}
