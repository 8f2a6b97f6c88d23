<?php

declare(strict_types=1);

namespace App\Store\Timing;

use App\Models\Rules\RuleWatch;
use App\Models\Rules\StoredRule;
use App\Models\Timing\HandRun;
use App\Models\Timing\HandRunRecord;
use App\Models\Timing\HandRunStatus;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\LedgerConnection;
use App\Store\Records\SaveRecord;
use App\Store\RefusedFor;
use App\Store\Sql\Batch;
use App\Store\Sql\FaultIsolation;
use App\Store\Sql\Lease;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as QueryBuilder;
use VividLedger\Engine\Firing;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/**
 * Rules run by hand. One record is answered at once; a selection is a run that workers go through, each record in a
 * transaction of its own, so that a run cut short goes on where it was.
 */
final readonly class RunStore
{
    public const MOST = 10_000;

    private const LONGEST_TROUBLE = 300;

    private const LONGEST_SAID = 500;

    private const AT_ONCE = 50;

    public function __construct(
        private LedgerConnection $db,
        private SchemaStore $schemas,
        private SaveRecord $save,
        private HouseClock $clock,
        private FaultIsolation $isolation,
    ) {
    }

    /**
     * @param  list<int>  $ids  of the records
     * @return int id of the run
     */
    public function start(int $rule, RecordType $type, array $ids, int $by): int
    {
        $ids = array_values(array_unique($ids));
        if ($ids === [] || count($ids) > self::MOST) {
            $message = $ids === []
                ? Words::say('Choose at least one record.')
                : Words::say('A run takes at most {most} records at a time.', most: Words::figures(self::MOST));
            throw new DomainError('invalid_values', $message, RefusedFor::Invalid);
        }
        $isRunnable = StoredRule::query()->inForce()->where('id', $rule)->where('record_type', $type->name)
            ->whereHas('watches', static fn (Builder $watches): Builder => $watches->where('watch', RuleWatch::BY_HAND))->exists();
        if (! $isRunnable) {
            throw new DomainError(
                'not_runnable',
                Words::say('This rule is not in force, or not one that is run by hand on {type}.', type: $type->plural),
                RefusedFor::Conflict,
            );
        }

        return $this->db->transaction(function () use ($rule, $type, $ids, $by): int {
            $run = HandRun::query()->create([
                'rule_id' => $rule, 'record_type' => $type->name, 'by_id' => $by, 'at' => $this->clock->now(), 'total' => count($ids),
            ]);
            Batch::insert(HandRunRecord::class, array_map(static fn (int $id): array => ['run_id' => $run->id, 'record_id' => $id], $ids));

            return $run->id;
        });
    }

    /**
     * Goes through waiting runs, for about so long.
     *
     * @return int how many records were answered; 0 means that nothing waits
     */
    public function work(float $seconds): int
    {
        $run = Lease::take($this->db, HandRun::query()->whereIn('status', HandRunStatus::UNFINISHED), ['status' => HandRunStatus::Running]);
        if ($run === null) {
            return 0;
        }

        return $this->through($run, microtime(true) + $seconds);
    }

    /** Goes through one run to its end; for a single record, where the person waits for the answer. */
    public function finish(int $run): void
    {
        $row = HandRun::query()->find($run);
        if ($row !== null) {
            $this->through($row, microtime(true) + Lease::SECONDS);
        }
    }

    private function through(HandRun $run, float $end): int
    {
        $answered = 0;
        do {
            $waiting = HandRunRecord::rows()->where('run_id', $run->id)->where('result', 'waiting')->orderBy('record_id')
                ->limit(self::AT_ONCE)->pluck('record_id');
            foreach ($waiting as $record) {
                $this->answered($run, (int) $record);
                $answered++;
                if (microtime(true) > $end) {
                    break 2;
                }
            }
        } while ($waiting->isNotEmpty());
        $run->refresh()->update([
            'leased_until' => null, 'status' => $run->done >= $run->total ? HandRunStatus::Done : HandRunStatus::Running,
        ]);

        return $answered;
    }

    /** One record that cannot be answered is told as failed, and keeps the others from nothing. */
    private function answered(HandRun $run, int $id): void
    {
        $this->isolation->attempt(
            fn () => $this->answer($run, $id),
            fn (\Throwable $broken) => $this->db->transaction(function () use ($run, $id, $broken): void {
                $said = 'It could not be done: '.mb_strimwidth($broken->getMessage(), 0, self::LONGEST_TROUBLE, '…');
                $record = HandRunRecord::rows()->where('run_id', $run->id)->where('record_id', $id)->where('result', 'waiting');
                if ($record->update(['result' => 'failed', 'said' => $said]) > 0) {
                    $run->newQuery()->whereKey($run->id)->increment('done');
                }
            }),
        );
    }

    private function answer(HandRun $run, int $id): void
    {
        $type = $this->schemas->schema()->types[$run->record_type];
        $this->db->transaction(function () use ($run, $id, $type): void {
            // Whoever holds the row answers the record; another worker that took over waits here and finds it done.
            $record = static fn (): QueryBuilder => HandRunRecord::rows()->where('run_id', $run->id)->where('record_id', $id);
            if (! $record()->where('result', 'waiting')->lockForUpdate()->exists()) {
                return;
            }
            [$result, $said, $entry] = $this->result($run, $type, $id);
            $record()->update(['result' => $result, 'said' => mb_substr($said, 0, self::LONGEST_SAID), 'entry_id' => $entry]);
            $run->newQuery()->whereKey($run->id)->incrementEach(['done' => 1, 'fired' => $result === 'fired' ? 1 : 0]);
        });
    }

    /** @return array{string, string, ?int} what came of it, in a word and in a sentence, and the entry */
    private function result(HandRun $run, RecordType $type, int $id): array
    {
        $event = static fn (): Event => new Event(EventKind::ByHand, "hand:{$run->id}", '', $run->rule_id);
        try {
            $by = new Actor($run->by_id);
            $saved = $this->save->recordEvent($type, $id, $event, $by, ['run' => $run->id], null, null, $run->rule_id);
        } catch (DomainError $refused) {
            return ['refused', $refused->getMessage(), null];
        }
        foreach ($saved->decision->steps as $place => $step) {
            if ($step instanceof Firing && $step->rule->id === $run->rule_id) {
                return ['fired', '', $saved->stepEntries[$place]];
            }
        }

        return ['silent', 'The rule did not fire.', $saved->entryId];
    }
}
