<?php

declare(strict_types=1);

namespace App\Evidence\Ledger;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Ledger\ReversedEntry;
use App\Models\Outbound\MessageStatus;
use App\Models\Outbound\StoredMessage;
use App\Models\Records\FieldChange;
use App\Models\Records\StoredRecord;
use App\Models\SignOffs\StoredSignOff;
use App\Models\Slips\StoredSlip;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\ScheduledLine;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\Ledger\DecisionRecord;
use App\Store\Ledger\LedgerWriter;
use App\Store\People\PeopleStore;
use App\Store\Records\UnansweredWrite;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\SignOffs\SignOffRepository;
use App\Store\Slips\SlipRepository;
use App\Store\Sql\Lock;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Engine\Decision;
use VividLedger\Engine\StruckCode;
use VividLedger\Formula\ComputedFields;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Words\Words;

/**
 * Takes back what the entries of rules did, or what a person's own edit changed: fields return to what they were, open tasks are
 * cancelled, pencilled lines struck out, sign-offs that wait withdrawn. What was sent stays sent. A field that somebody has changed
 * since is left, unless it is wanted back all the same. No rule answers a reversal: it leads back to a state that rules have answered
 * before.
 *
 * @phpstan-type Conflict array{entry: int, type: string, record: int, number: string, label: string, was: string, set: string, is: string}
 */
final readonly class Reversal
{
    /** Reversed together; more are reversed in several steps. */
    public const MOST = 50;

    private const MOST_LISTED = 5000;

    /** Entries of rules that have something to take back. */
    private const OF_RULES = ['fired', 'line'];

    /** Ways by which people and scripts write themselves, one record or many. */
    private const BY_PEOPLE = ['person', 'api', 'import'];

    private const WHY_LENGTH = 200;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private UnansweredWrite $unanswered,
        private LedgerWriter $ledger,
        private HouseClock $clock,
        private SignOffRepository $signOffs,
        private SlipRepository $slips,
        private Company $company,
    ) {
    }

    /** @return list<int> numbers of the entries of a rule in a span that can be reversed, the newest first */
    public function entriesOf(int $rule, \DateTimeImmutable $from, \DateTimeImmutable $until): array
    {
        return Columns::ints(Entry::query()->where('rule_id', $rule)->whereBetween('at', [Columns::moment($from), Columns::moment($until)])
            ->whereIn('kind', self::OF_RULES)->doesntHave('reversal')->latest('id')->limit(self::MOST_LISTED)->pluck('id'));
    }

    /**
     * What a reversal would come to. Entries that were reversed already are left out.
     *
     * @param  list<int>  $entries
     * @return array{
     *     entries: list<int>, fields: int, tasks: int, lines: int, signOffs: int, slips: int, sent: int, conflicts: list<Conflict>,
     * }
     */
    public function preview(array $entries): array
    {
        $display = $this->display();
        $taken = $this->reversible($entries);
        $written = $this->written($taken);
        $nothing = ['fields' => 0, 'tasks' => 0, 'lines' => 0, 'signOffs' => 0, 'slips' => 0, 'sent' => 0, 'conflicts' => []];
        $sum = ['entries' => $taken] + $nothing;
        $laid = $this->laid($written);
        foreach ($taken as $entry) {
            foreach ($written[$entry] ?? [] as $row) {
                $type = $this->schemas->schema()->type($row->record_type);
                $field = $type?->field($row->field);
                $key = "{$row->record_type}:{$row->record_id}";
                if ($type === null || $field === null || ! isset($laid[$key])) {
                    continue;
                }
                if ($laid[$key][$row->field] !== $row->after) {
                    $sum['conflicts'][] = [
                        'entry' => $entry, 'type' => $type->name, 'record' => $row->record_id, 'number' => $type->numberOf($row->record_id),
                        'label' => $field->label, 'was' => $display->of($field, $row->before), 'set' => $display->of($field, $row->after),
                        'is' => $display->of($field, $laid[$key][$row->field]),
                    ];
                } else {
                    $sum['fields']++;
                    $laid[$key][$row->field] = $row->before;
                }
            }
        }
        $sum['tasks'] = Task::query()->open()->whereIn('entry_id', $taken)->count();
        $sum['lines'] = ScheduledLine::query()->toCome()->whereNotNull('run_id')->whereIn('entry_id', $taken)->count();
        $sum['signOffs'] = StoredSignOff::query()->askedBy($taken)->count();
        $sum['slips'] = StoredSlip::query()->sentBy($taken)->count();
        $sum['sent'] = StoredMessage::query()->where('status', '<>', MessageStatus::Cancelled)->whereIn('entry_id', $taken)->count();

        return $sum;
    }

    /**
     * What a reversal of entries would write to.
     *
     * @param  list<int>  $entries
     * @return array<string, array<int, list<string>>> names of fields, by record type and record
     */
    public function touches(array $entries): array
    {
        $touched = [];
        foreach (array_merge([], ...array_values($this->written($this->reversible($entries)))) as $row) {
            $touched[$row->record_type][$row->record_id][] = $row->field;
        }

        return $touched;
    }

    /**
     * Reverses entries, each with an entry of its own; all of these or none.
     *
     * @param  list<int>  $entries
     * @param  bool  $force  whether fields return that somebody has changed since
     * @return list<int> numbers of the reversals
     *
     * @throws DomainError when a sign-off locks one of the records, or somebody else has a value by now that no two may have
     */
    public function reverse(array $entries, bool $force, string $why, int $by): array
    {
        if (count($entries) > self::MOST) {
            throw new DomainError(
                'too_many',
                Words::say('At most {most} entries are reversed at once.', most: self::MOST),
                RefusedFor::Invalid,
            );
        }

        return $this->db->transaction(function () use ($entries, $force, $why, $by): array {
            $numbers = [];
            foreach ($this->reversible($entries) as $entry) {
                $numbers[] = $this->one($entry, $force, $why, $by);
            }

            return $numbers;
        });
    }

    private function one(int $entry, bool $force, string $why, int $by): int
    {
        $now = $this->clock->now();
        $row = Entry::query()->findOrFail($entry);
        $type = $this->schemas->schema()->type((string) $row->record_type)
            ?? throw new DomainError('not_reversible', Words::say('Entry {entry} stands on no record.', entry: $entry),
                RefusedFor::Conflict);
        $kept = [];
        $changes = [];
        foreach ($this->written([$entry])[$entry] ?? [] as $written) {
            $changes["{$written->record_type}:{$written->record_id}"][] = $written;
        }
        $own = "{$row->record_type}:{$row->record_id}";
        // The record of the entry comes first: its new entry is the one that says it was reversed.
        $changes = [$own => $changes[$own] ?? []] + $changes;
        $data = ['of' => $entry, 'why' => mb_substr(trim($why), 0, self::WHY_LENGTH)] + $this->struck($entry, $now, $by);
        $reversed = [];
        foreach ($changes as $key => $fields) {
            [$typeName, $id] = explode(':', $key);
            $about = $this->schemas->schema()->type($typeName);
            $before = $about === null ? null : RecordSql::record($about, (int) $id, Lock::WRITE);
            if ($about === null || $before === null) {
                continue;
            }
            $values = [];
            foreach ($fields as $field) {
                $set = $about->field($field->field);
                if ($set === null) {
                    continue;
                }
                $is = array_key_exists($field->field, $values) ? $values[$field->field] : $before->value($field->field);
                if (! $force && $is !== $field->after) {
                    $kept[] = $set->label;
                } else {
                    $values[$field->field] = $field->before;
                }
            }
            $stamps = ['updated_at' => Value::instantText($now), 'updated_by' => $by];
            $all = ComputedFields::with($about, array_replace($before->values, $values, $stamps));
            $after = $values === [] ? $before : new Record($about->name, $before->id, $before->version + 1, $all);
            if ($values !== []) {
                $this->unanswered->write(new Change($before, $after, $by, $now));
            }
            if ($values !== [] || $key === $own) {
                $reversed[] = [$before, $after];
            }
        }
        if ($reversed === []) {
            // The record is gone; what was pencilled in and given is taken back all the same.
            $gone = new Record($type->name, (int) $row->record_id, (int) $row->version, array_fill_keys(array_keys($type->fields), null));
            $reversed[] = [$gone, $gone];
        }
        $data += $kept === [] ? [] : ['kept' => array_values(array_unique($kept))];
        $outcomes = array_map(static fn (array $pair): DecisionRecord => new DecisionRecord(
            change: new Change($pair[0], $pair[1], $by, $now), decision: new Decision($pair[1]), actor: new Actor($by), kind: 'reversed',
            data: $data, taskId: null, causeId: $entry, ruleId: $row->rule_id,
        ), $reversed);
        $number = $this->ledger->write($outcomes)[0][0];
        ReversedEntry::query()->create(['entry_id' => $entry, 'by_entry' => $number]);

        return $number;
    }

    /**
     * @return array{tasks: list<string>, lines: int, signOffs: int, slips: int, sent: int} what was taken back besides fields, and what
     *     stays sent
     */
    private function struck(int $entry, \DateTimeImmutable $now, int $by): array
    {
        $tasks = Task::query()->open()->where('entry_id', $entry)->lockForUpdate()->get();
        Task::query()->whereKey($tasks->modelKeys())->update(['status' => TaskStatus::Cancelled, 'done_at' => Columns::moment($now)]);
        ScheduledLine::query()->whereIn('task_id', $tasks->modelKeys())->where('status', LineStatus::Pencilled)
            ->update(ScheduledLine::struck(StruckCode::TaskCancelled, 'the task was cancelled'));
        $pencilled = static fn (): Builder => ScheduledLine::query()->where('entry_id', $entry)->whereNotNull('run_id');
        $lines = $pencilled()->toCome()->update(ScheduledLine::struck(StruckCode::Reversed, 'what pencilled it in was reversed'));
        RuleRun::close(Columns::ints($pencilled()->distinct()->pluck('run_id')));
        $signOffs = $this->signOffs->takeBack($entry, new Actor($by));
        $slips = $this->slips->takeBack($entry, new Actor($by));
        $sent = StoredMessage::query()->where('entry_id', $entry)->count();

        return [
            'tasks' => Columns::texts($tasks->pluck('title')), 'lines' => $lines, 'signOffs' => $signOffs, 'slips' => $slips,
            'sent' => $sent,
        ];
    }

    /**
     * What entries wrote into fields, and what they wrote into those of other records.
     *
     * @param  list<int>  $entries
     * @return array<int, list<FieldChange>> by entry; the last written first
     */
    private function written(array $entries): array
    {
        if ($entries === []) {
            return [];
        }
        $of = array_combine($entries, $entries);
        $caused = Entry::query()->whereIn('cause_id', $entries)->where('kind', 'changed')->where('via', CauseKind::Rule)
            ->pluck('cause_id', 'id');
        foreach ($caused as $id => $cause) {
            $of[(int) $id] ??= (int) $cause;
        }
        $written = [];
        foreach (FieldChange::query()->whereIn('entry_id', array_keys($of))->latest('id')->get() as $row) {
            $written[$of[$row->entry_id]][] = $row;
        }

        return $written;
    }

    /**
     * The records as they now are.
     *
     * @param  array<int, list<FieldChange>>  $written
     * @return array<string, array<string, string|int|bool|null>> values by type and id
     */
    private function laid(array $written): array
    {
        $ids = [];
        foreach (array_merge([], ...array_values($written)) as $row) {
            $ids[$row->record_type][$row->record_id] = $row->record_id;
        }
        $laid = [];
        foreach ($ids as $name => $records) {
            $type = $this->schemas->schema()->type($name);
            if ($type === null) {
                continue;
            }
            foreach (StoredRecord::rowsOf($type)->whereIn('id', $records)->get() as $row) {
                $laid["{$name}:{$row->id}"] = Columns::record($type, $row)->values;
            }
        }

        return $laid;
    }

    /**
     * @param  list<int>  $entries
     *
     * @throws DomainError when one of them does not exist
     */
    public function mustExist(array $entries): void
    {
        $found = Entry::query()->whereIn('id', $entries)->pluck('id')->all();
        $missing = array_diff($entries, $found);
        if ($missing !== []) {
            throw new DomainError(
                'not_found',
                Words::say('There is no entry {missing}.', missing: implode(', ', array_slice($missing, 0, 5))),
                RefusedFor::Missing,
            );
        }
    }

    /**
     * @param  list<int>  $entries
     * @return list<int> the newest first
     */
    private function reversible(array $entries): array
    {
        return Columns::ints(Entry::query()->whereIn('id',
            $entries)->doesntHave('reversal')->where(static fn (Builder $own): Builder => $own
            ->whereIn('kind', self::OF_RULES)
            ->orWhere(static fn (Builder $edit): Builder => $edit->where('kind', 'changed')->whereIn('via', self::BY_PEOPLE)))
            ->latest('id')->pluck('id'));
    }

    private function display(): Display
    {
        return new Display(new PeopleStore($this->schemas), $this->company->zone());
    }
}
