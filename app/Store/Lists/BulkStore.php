<?php

declare(strict_types=1);

namespace App\Store\Lists;

use App\Models\Columns;
use App\Models\Lists\BulkJob;
use App\Models\Lists\BulkKind;
use App\Models\Lists\BulkRow;
use App\Models\Lists\BulkStatus;
use App\Models\People\Person;
use App\Store\Access\AccessScope;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\LedgerConnection;
use App\Store\RefusedFor;
use VividLedger\Rights\Duty;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Work on many records: begun, looked at, stopped, taken up again and taken back. Who does it stands in Evidence\Bulk. */
final readonly class BulkStore
{
    public const MOST = 100_000;

    public function __construct(
        private LedgerConnection $db,
        private RecordList $list,
        private AccessScope $inSight,
        private HouseClock $clock,
    ) {
    }

    /**
     * @param  array<array-key, mixed>  $values  raw values by field name
     *
     * @throws DomainError
     */
    public function change(Chosen $chosen, array $values, Person $by): BulkJob
    {
        $count = $this->count($chosen);
        if ($count === 0 || $count > self::MOST) {
            throw new DomainError('invalid_values', $count === 0 ? Words::say('Choose at least one record.')
                : Words::say('At most {most} records are changed at a time.', most: Words::figures(self::MOST)));
        }

        return $this->db->transaction(function () use ($chosen, $values, $by): BulkJob {
            $job = $this->begin(BulkKind::Change, $chosen->type, $by, ['values' => $values]);
            $ids = $chosen->rows($this->list, $this->inSight)->orderBy('t.id');
            $ids->columns = null;
            $ids->selectRaw('? AS job_id, ROW_NUMBER() OVER (ORDER BY t.id) AS place, t.id AS record_id', [$job->id]);
            $job->total = BulkRow::rows()->insertUsing(['job_id', 'place', 'record_id'], $ids);
            $job->status = BulkStatus::Waiting;
            $job->save();

            return $job;
        });
    }

    /** @param  array<string, mixed>  $spec */
    public function begin(BulkKind $kind, RecordType $type, Person $by, array $spec): BulkJob
    {
        return BulkJob::query()->create([
            'kind' => $kind, 'record_type' => $type->name, 'by_id' => $by->id, 'at' => $this->clock->now(), 'status' => BulkStatus::Draft,
            'spec' => $spec, 'answered' => true,
        ])->refresh();
    }

    public function count(Chosen $chosen): int
    {
        return $chosen->rows($this->list, $this->inSight)->count();
    }

    /**
     * Some of them, to try on: the first, so that the same is tried again.
     *
     * @return list<int>
     */
    public function first(Chosen $chosen, int $most): array
    {
        return Columns::ints($chosen->rows($this->list, $this->inSight)->orderBy('t.id')->limit($most)->pluck('t.id'));
    }

    /** @throws DomainError when there is none that they may look at */
    public function seen(int $id, Person $by): BulkJob
    {
        $job = BulkJob::query()->with('by')->find($id);

        return $job !== null && ($job->by_id === $by->id || $by->may(Duty::SeeLedger)) ? $job
            : throw DomainError::missing(Words::say('There is no such work.'));
    }

    /** @throws DomainError */
    public function own(int $id, Person $by): BulkJob
    {
        $job = $this->seen($id, $by);

        return $job->by_id === $by->id || $by->may(Duty::KeepHouse) ? $job
            : throw new DomainError('not_allowed', Words::say('This is {by}’s work.', by: $job->by->name), RefusedFor::NotAllowed);
    }

    /** Nothing more is begun; what is done stays. */
    public function stop(BulkJob $job): void
    {
        $this->turn($job, [BulkStatus::Waiting, BulkStatus::Running], BulkStatus::Stopped, Words::say('It is not at work.'));
    }

    /** Goes on where it was stopped. */
    public function goOn(BulkJob $job): void
    {
        $this->turn($job, [BulkStatus::Stopped], BulkStatus::Waiting, Words::say('It is not stopped.'));
    }

    /** Takes back what was done, record by record. */
    public function undo(BulkJob $job): void
    {
        $early = Words::say('It has to come to its end first, or be stopped.');
        $this->turn($job, [BulkStatus::Stopped, BulkStatus::Done], BulkStatus::Undoing, $early);
    }

    /** @param  list<BulkStatus>  $from */
    private function turn(BulkJob $job, array $from, BulkStatus $to, string $otherwise): void
    {
        if (BulkJob::query()->whereKey($job->id)->whereIn('status', $from)->update(['status' => $to]) === 0) {
            throw new DomainError('wrong_status', $otherwise, RefusedFor::Conflict);
        }
        $job->refresh();
    }
}
