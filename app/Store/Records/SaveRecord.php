<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Ledger\Entry;
use App\Models\Records\StoredRecord;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Ledger\DecisionRecord;
use App\Store\Ledger\LedgerWriter;
use App\Store\LedgerConnection;
use App\Store\Operations\Timings;
use App\Store\RefusedByRule;
use App\Store\RefusedFor;
use App\Store\Rules\CachingRuleBook;
use App\Store\Rules\StoredRuleBook;
use App\Store\Setup\Company;
use App\Store\Sql\Batch;
use App\Store\Sql\Lock;
use App\Store\Sql\RecordSql;
use App\Store\Timing\RecordRuns;
use App\Store\Types\SchemaStore;
use Closure;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\OneRuleBook;
use VividLedger\Engine\Refusal;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Rule;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\PassesLock;
use VividLedger\Time\FixedClock;
use VividLedger\Words\Words;

/**
 * The one way a record is saved, and the one way something happens to it. In one transaction: the row is locked, the
 * engine decides what follows, and records, field history, guard keys, entries, tasks and messages are written. Whatever
 * ends it early leaves nothing behind.
 */
final readonly class SaveRecord
{
    public function __construct(
        private LedgerConnection $db,
        private SchemaStore $schemas,
        private Engine $engine,
        private StoredRuleBook $rules,
        private RecordInput $input,
        private RecordWriter $records,
        private LedgerWriter $ledger,
        private StaleVersion $stale,
        private RecordRuns $runs,
        private HouseClock $clock,
        private Company $company,
        private RecordLock $lock,
        private Drafts $drafts,
        private CascadeDelete $deleting,
        private UnansweredWrite $unanswered,
        private Timings $timings,
    ) {
    }

    /**
     * @param  array<array-key, mixed>  $input  raw values by field name
     *
     * @throws DomainError
     */
    public function create(RecordType $type, array $input, Actor $actor): Saved
    {
        $given = $this->input->checked($type, $input, null);

        return $this->guarded($type, null, $actor, function () use ($type, $given, $actor): Saved {
            $now = $this->clock->now();
            $facts = $this->facts($now);
            $record = $this->drafts->made($type, $facts->freshId($type->name), $given, $actor, $now);

            return $this->settle(new Change(null, $record, $actor->personId, $now, $actor->via), $facts, $actor, 'created');
        });
    }

    /**
     * A save whose fields nobody else has touched since goes through, whatever else has changed.
     *
     * @param  int  $version  of the record as the person saw it
     * @param  array<array-key, mixed>  $input  raw values by field name; fields not named stay as they are
     *
     * @throws DomainError
     */
    public function change(RecordType $type, int $id, int $version, array $input, Actor $actor): Saved
    {
        return $this->guarded($type, $id, $actor, function () use ($type, $id, $version, $input, $actor): Saved {
            $before = $this->open($type, $id);
            $given = $this->input->checked($type, $input, $before);
            if ($before->version !== $version) {
                $given = $this->stale->settled($type, $before, $version, $given);
            }
            if ($given === []) {
                return new Saved($before, new Decision($before), null);
            }

            $now = $this->clock->now();

            return $this->settle($this->changed($type, $before, $given, $actor, $now), $this->facts($now, $before), $actor, 'changed');
        });
    }

    /**
     * What is written though a sign-off may have locked the record.
     *
     * @param  array<array-key, mixed>  $input  raw values by field name
     *
     * @throws DomainError
     */
    public function correct(RecordType $type, int $id, array $input, Actor $actor, int $cause, PassesLock $as): Saved
    {
        return $this->guarded($type, $id, $actor, function () use ($type, $id, $input, $actor, $cause, $as): Saved {
            $before = $this->locked($type, $id);
            $given = $this->input->checked($type, $input, $before);
            $now = $this->clock->now();
            $passed = $this->lock->on($type, $id) === null ? [] : ['passed' => $as->value];

            return $given === [] ? new Saved($before, new Decision($before), null) : $this->settle(
                $this->changed($type, $before, $given, $actor, $now), $this->facts($now), $actor, 'changed', $passed, causeId: $cause,
            );
        });
    }

    /**
     * A rule answers what it could not answer while the record was locked. A rule that refuses it now leaves all as it is.
     *
     * @param  Change  $change  one that comes again
     */
    public function answerAgain(RecordType $type, int $id, Change $change, Rule $rule, int $cause): void
    {
        $actor = new Actor($change->actor, $change->cause);
        $book = new OneRuleBook(new CachingRuleBook($this->rules), $change, $rule);
        $decision = $this->engine->decide($change, $book, $this->facts($change->at), new FixedClock($change->at));
        if ($decision->refusal !== null) {
            Batch::insert(Entry::class, [$this->refused($type, $id, $actor, $decision->refusal, ['of' => $rule->name], $cause)]);
        } elseif ($decision->steps !== []) {
            $this->records->write([[$change->record(), $decision->after], ...$decision->others], $change->at);
            $this->ledger->write([new DecisionRecord($change, $decision, $actor, 'changed', causeId: $cause)]);
        }
    }

    /**
     * Deletes a record; its history stays, and so it can be brought back.
     *
     * @throws DomainError
     */
    public function delete(RecordType $type, int $id, int $version, Actor $actor): Saved
    {
        return $this->guarded($type, $id, $actor, function () use ($type, $id, $version, $actor): Saved {
            $before = $this->open($type, $id);
            if ($before->version !== $version) {
                throw $this->stale->refusal($type, $before, $version);
            }
            $this->deleting->answer($this, $type, $id, $actor);
            $now = $this->clock->now();
            $change = new Change($before, null, $actor->personId, $now, $actor->via);
            // What followed the reference to it may have asked for a sign-off of it: its lock is looked at anew.
            $saved = $this->settle($change, $this->facts($now), $actor, 'deleted');
            $this->runs->strikeOut($before, $actor, $now, (int) $saved->entryId);

            return $saved;
        });
    }

    /**
     * Takes back that a record was made: it is deleted, and no rule answers.
     *
     * @throws DomainError
     */
    public function unmake(RecordType $type, int $id, Actor $actor): Saved
    {
        return $this->guarded($type, $id, $actor, function () use ($type, $id, $actor): Saved {
            $before = $this->open($type, $id);
            $this->deleting->answer($this, $type, $id, $actor);
            $now = $this->clock->now();
            $change = new Change($before, null, $actor->personId, $now, $actor->via);
            $this->unanswered->write($change);
            $saved = new Saved($before, new Decision(null), ...$this->ledger->write([
                new DecisionRecord($change, new Decision(null), $actor, 'deleted'),
            ])[0]);
            $this->runs->strikeOut($before, $actor, $now, (int) $saved->entryId);

            return $saved;
        });
    }

    /**
     * Brings a deleted record back as it last was, under its own number.
     *
     * @throws DomainError when it is not deleted, or something it refers to no longer fits
     */
    public function restore(RecordType $type, Record $last, Actor $actor): Saved
    {
        return $this->guarded($type, $last->id, $actor, function () use ($type, $last, $actor): Saved {
            if (StoredRecord::rowsOf($type)->where('id', $last->id)->lockForUpdate()->exists()) {
                throw new DomainError(
                    'not_deleted',
                    Words::say('{number} is not deleted.', number: $type->numberOf($last->id)),
                    RefusedFor::Conflict,
                );
            }
            $now = $this->clock->now();
            $record = new Record(
                $type->name,
                $last->id,
                $last->version + 1,
                array_replace($last->values, ['updated_at' => Value::instantText($now), 'updated_by' => $actor->personId]),
            );
            // No rule answers: it is the same record as before, not a new one.
            $change = new Change(null, $record, $actor->personId, $now, $actor->via);
            $this->unanswered->write($change);

            $saved = new Saved(
                $record,
                new Decision($record),
                ...$this->ledger->write([new DecisionRecord($change, new Decision($record), $actor, 'restored')])[0],
            );
            $this->runs->takeUp($record, $actor, $now, (int) $saved->entryId);

            return $saved;
        });
    }

    /**
     * Something happened to a record besides a change of its fields.
     *
     * @param  Closure(): Event  $event  made once the record is locked
     * @param  array<string, mixed>  $data  what the entry keeps
     *
     * @throws DomainError
     */
    public function recordEvent(
        RecordType $type,
        int $id,
        Closure $event,
        Actor $actor,
        array $data = [],
        ?int $taskId = null,
        ?int $causeId = null,
        ?int $ruleId = null,
    ): Saved {
        return $this->guarded($type, $id, $actor, function () use ($type, $id, $event, $actor, $data, $taskId, $causeId, $ruleId): Saved {
            $record = $this->locked($type, $id);
            $happened = $event();
            if (RecordLock::keepsFrom($happened->kind)) {
                $this->lock->mustBeOpen($type, $id);
            }
            $now = $this->clock->now();

            return $this->settle(
                Change::event($record, $happened, $actor->personId, $now, $actor->via),
                $this->facts($now),
                $actor,
                $happened->kind->value,
                $data,
                $taskId,
                $causeId,
                $ruleId,
            );
        });
    }

    /** @param  array<string, string|int|bool|null>  $given */
    private function changed(RecordType $type, Record $before, array $given, Actor $actor, \DateTimeImmutable $now): Change
    {
        return new Change($before, $this->drafts->changed($type, $before, $given, $actor, $now), $actor->personId, $now, $actor->via);
    }

    /**
     * For decisions that are settled together, at one moment.
     *
     * @param  ?Closure(StoredFacts): void  $prepare  fetches at once what each of them will ask for
     */
    public function settlement(\DateTimeImmutable $now, ?Closure $prepare = null): UnitOfWork
    {
        return new UnitOfWork(
            schemas: $this->schemas, company: $this->company, records: $this->records, ledger: $this->ledger, now: $now,
            prepare: $prepare,
        );
    }

    /** @param  array<string, mixed>  $data */
    private function settle(
        Change $change,
        StoredFacts $facts,
        Actor $actor,
        string $kind,
        array $data = [],
        ?int $taskId = null,
        ?int $causeId = null,
        ?int $ruleId = null,
    ): Saved {
        $decision = $this->timings->of('decide', fn (): Decision => $this->engine->decide(
            $change,
            new CachingRuleBook($this->rules),
            $facts,
            new FixedClock($change->at),
        ));
        if ($decision->refusal !== null) {
            throw new RefusedByRule($change, $decision->refusal);
        }
        $was = $change->event === null ? $change->before : $change->record();
        $this->records->write([[$was, $decision->after], ...$decision->others], $change->at);
        $outcome = new DecisionRecord(
            change: $change, decision: $decision, actor: $actor, kind: $kind, data: $data, taskId: $taskId, causeId: $causeId,
            ruleId: $ruleId,
        );
        if (! $outcome->hasOwnEntry() && $decision->steps === []) {
            return new Saved($change->record(), $decision, null);
        }

        return new Saved($decision->after ?? $change->record(), $decision, ...$this->ledger->write([$outcome])[0]);
    }

    /**
     * Runs in a transaction. When a rule refuses, all of it is undone, and an entry says who wanted what and why it was refused.
     *
     * @param  Closure(): Saved  $work
     */
    private function guarded(RecordType $type, ?int $id, Actor $actor, Closure $work): Saved
    {
        try {
            return $this->timings->of('save', fn (): Saved => $this->db->transaction($work));
        } catch (RefusedByRule $refused) {
            // Inside something larger, too, the entry stays when all the rest is undone.
            $entry = $this->refused($type, $id, $actor, $refused->refusal);
            $this->db->afterwards(static fn () => Batch::insert(Entry::class, [$entry]));
            throw $refused->forPerson();
        }
    }

    /**
     * @param  array<string, mixed>  $data  what the entry keeps besides
     * @return array<string, mixed> the entry that stays of a refused change: all that does
     */
    public function refused(RecordType $type, ?int $id, Actor $actor, Refusal $refusal, array $data = [], ?int $cause = null): array
    {
        return Entry::row('refused', $this->clock->now(), ['message' => $refusal->message, 'why' => $refusal->why] + $data, [
            'actor_id' => $actor->personId, 'via' => $actor->via, 'record_type' => $type->name, 'record_id' => $id,
            'rule_id' => $refusal->rule->id, 'page' => $refusal->rule->page, 'cause_id' => $cause,
        ]);
    }

    /** The record, kept from others, that people may change. */
    private function open(RecordType $type, int $id): Record
    {
        $record = $this->locked($type, $id);
        $this->lock->mustBeOpen($type, $id);

        return $record;
    }

    private function locked(RecordType $type, int $id): Record
    {
        return RecordSql::record($type, $id, Lock::WRITE) ?? throw DomainError::noRecord($type, $id);
    }

    /** @param  ?Record  $open  one that was seen to be open: its lock is not asked for again */
    private function facts(\DateTimeImmutable $now, ?Record $open = null): StoredFacts
    {
        $facts = new StoredFacts($this->schemas, $now, $this->company->zone());
        if ($open !== null) {
            $facts->knowsOpen($open->type, $open->id);
        }

        return $facts;
    }
}
