<?php

declare(strict_types=1);

namespace App\Evidence\Lists;

use App\Evidence\Ledger\Reversal;
use App\Models\Columns;
use App\Models\Import\RowResult;
use App\Models\Ledger\Entry;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkKind;
use App\Models\Lists\BulkRow;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\LedgerConnection;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use VividLedger\Schema\RecordType;

/**
 * What was done with records is taken back, with what rules did because of it: fields return, records that were made are deleted. A
 * record that somebody has changed since keeps what they wrote.
 */
final readonly class UndoPiece implements BulkPiece
{
    private const AT_ONCE = 20;

    /** Ways by which somebody else than the work itself has to do with a record. */
    private const BY_OTHERS = ['person', 'api', 'slip', 'hook', 'import'];

    public function __construct(
        private LedgerConnection $db,
        private SchemaStore $schemas,
        private Reversal $reversal,
        private SaveRecord $save,
    ) {
    }

    public function piece(BulkJob $job): int
    {
        $type = $this->schemas->schema()->types[$job->record_type];

        return $this->db->transaction(function () use ($job, $type): int {
            BulkJob::query()->whereKey($job->id)->lockForUpdate()->first();
            // The last first, as everything is taken back.
            $rows = BulkRow::query()->where('job_id', $job->id)->whereIn('result', [RowResult::Created, RowResult::Changed])
                ->orderByDesc('place')->limit(self::AT_ONCE)->get();
            $undone = 0;
            foreach ($rows as $row) {
                [$result, $said] = $this->undone($job, $type, $row);
                $undone += $result === RowResult::Undone ? 1 : 0;
                BulkRow::rows()->where('job_id', $job->id)->where('place', $row->place)->update(['result' => $result, 'said' => $said]);
            }
            BulkJob::query()->whereKey($job->id)->increment('undone', $undone);

            return $rows->count();
        });
    }

    /** @return array{RowResult, string} all of it is taken back, or what is in the way stands with the row */
    private function undone(BulkJob $job, RecordType $type, BulkRow $row): array
    {
        try {
            return $this->db->transaction(fn (): array => $row->result === RowResult::Created
                ? $this->unmade($job, $type, $row) : $this->unchanged($job, $row));
        } catch (DomainError $refused) {
            return [RowResult::Kept, $refused->getMessage()];
        }
    }

    /** @return array{RowResult, string} */
    private function unchanged(BulkJob $job, BulkRow $row): array
    {
        $numbers = $this->takenBack($job, $row);
        $kept = Entry::query()->whereKey($numbers)->get()->flatMap(static fn (Entry $entry): array => $entry->data['kept'] ?? []);

        return $kept->isEmpty() ? [RowResult::Undone, ''] : [
            RowResult::Kept, 'Somebody has changed '.$kept->unique()->implode(', ').' since.',
        ];
    }

    /** @return array{RowResult, string} */
    private function unmade(BulkJob $job, RecordType $type, BulkRow $row): array
    {
        $others = Entry::query()->where('record_type', $type->name)->where('record_id', $row->record_id)->where('id', '>', $row->entry_id)
            ->whereIn('via', self::BY_OTHERS)->where('kind', '<>', 'reversed')->exists();
        if ($others) {
            return [RowResult::Kept, 'Somebody has had to do with it since.'];
        }
        $this->takenBack($job, $row);
        $this->save->unmake($type, (int) $row->record_id, new Actor($job->by_id));

        return [RowResult::Undone, ''];
    }

    /** @return list<int> numbers of the reversals */
    private function takenBack(BulkJob $job, BulkRow $row): array
    {
        $fired = Columns::ints(Entry::query()->where('cause_id', $row->entry_id)->where('kind', 'fired')->pluck('id'));
        $why = $job->kind === BulkKind::Import ? 'The import was taken back' : 'Changed together, and taken back';
        $numbers = [];
        foreach (array_chunk([...$fired, (int) $row->entry_id], Reversal::MOST) as $some) {
            array_push($numbers, ...$this->reversal->reverse($some, false, $why, $job->by_id));
        }

        return $numbers;
    }
}
