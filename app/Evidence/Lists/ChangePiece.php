<?php

declare(strict_types=1);

namespace App\Evidence\Lists;

use App\Models\Import\RowResult;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkRow;
use App\Store\Actor;
use App\Store\LedgerConnection;
use App\Store\Records\SaveMany;
use App\Store\Types\SchemaStore;

/** The next records of a selection are changed. */
final readonly class ChangePiece implements BulkPiece
{
    private const AT_ONCE = 100;

    public function __construct(
        private LedgerConnection $db,
        private SchemaStore $schemas,
        private SaveMany $save,
        private BulkResults $results,
    ) {
    }

    public function piece(BulkJob $job): int
    {
        $type = $this->schemas->schema()->types[$job->record_type];

        return $this->db->transaction(function () use ($job, $type): int {
            // Whoever holds the job answers its rows; another worker that took over waits here.
            BulkJob::query()->whereKey($job->id)->lockForUpdate()->first();
            $places = BulkRow::rows()->where('job_id', $job->id)->where('result', RowResult::Waiting)->orderBy('place')
                ->limit(self::AT_ONCE)->pluck('record_id', 'place')->map(intval(...))->all();
            if ($places === []) {
                return 0;
            }
            $saved = $this->save->change($type, array_values($places), $job->spec['values'], new Actor($job->by_id), $job->answered);
            $this->results->note($job, array_map(static fn (int $id) => $saved[$id], $places));

            return count($places);
        });
    }
}
