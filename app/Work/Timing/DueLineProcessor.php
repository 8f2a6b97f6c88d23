<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Records\StoredRecord;
use App\Models\Rules\StoredRule;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\ScheduledLine;
use App\Store\Actor;
use App\Store\HouseClock;
use App\Store\Ledger\DecisionRecord;
use App\Store\Records\SaveRecord;
use App\Store\Records\StoredFacts;
use App\Store\Records\UnitOfWork;
use App\Store\Rules\CachingRuleBook;
use App\Store\Rules\StartBook;
use App\Store\Rules\StoredRuleBook;
use App\Store\Sql\Batch;
use App\Store\Sql\Lock;
use App\Store\Timing\RunsInPlay;
use App\Store\Types\SchemaStore;
use App\Work\Tasks\TasksDue;
use Illuminate\Database\Query\Builder;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Retimed;
use VividLedger\Engine\RuleBook;
use VividLedger\Engine\Struck;
use VividLedger\Engine\StruckCode;
use VividLedger\Facts\PencilledLine;
use VividLedger\Facts\Run;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\RuleStatus;
use VividLedger\Rule\Trigger\WaitsForDate;
use VividLedger\Time\FixedClock;

/** Decides on rows that are claimed, and writes what they come to. */
final readonly class DueLineProcessor
{
    public function __construct(
        private HouseClock $clock,
        private SchemaStore $schemas,
        private StoredRuleBook $rules,
        private Engine $engine,
        private SaveRecord $save,
    ) {
    }

    /**
     * @param  list<DueRow>  $rows
     * @param  ?Actor  $by  who wants it now; null when its time has come
     * @param  array<string, mixed>  $data  what the entry keeps besides
     * @return int how many came to their end
     */
    public function perform(array $rows, ?Actor $by = null, array $data = []): int
    {
        return $this->clock->freeze(fn (): int => $this->performAll($rows, $by, $data));
    }

    /**
     * @param  list<DueRow>  $rows
     * @param  array<string, mixed>  $data
     */
    private function performAll(array $rows, ?Actor $by, array $data): int
    {
        $now = $this->clock->now();
        $tasks = array_values(array_filter($rows, static fn (DueRow $row): bool => $row instanceof DueTask));
        if ($tasks !== []) {
            TasksDue::fall($tasks);
        }
        $done = count($tasks);
        $rows = array_values(array_filter($rows, static fn (DueRow $row): bool => ! $row instanceof DueTask));
        if ($rows === []) {
            return $done;
        }
        $records = $this->records($rows, $by !== null);
        $ids = [];
        foreach (array_filter($records) as $record) {
            $ids[$record->type][] = $record->id;
        }
        $settlement = $this->save->settlement($now, static function (StoredFacts $facts) use ($ids): void {
            foreach ($ids as $type => $ofType) {
                $facts->rememberLocks($type, $ofType);
            }
        });
        $book = new CachingRuleBook($this->rules);
        $starting = StoredRule::query()->findMany(array_filter(array_map(
            static fn (DueRow $row): ?int => $row instanceof DueStart ? $row->rule : null,
            $rows,
        )))->keyBy('id');
        $gone = [];
        foreach ($this->rounds(DueRows::moments($rows)) as $round) {
            $settlement->flush();
            $runs = RunsInPlay::byIds(array_values(array_unique(array_filter(array_map(
                static fn (array $line): int => $line[0] instanceof DueLine ? $line[0]->run : 0,
                $round,
            )))));
            foreach ($round as [$row, $isFirst, $next]) {
                $key = $row->recordKey();
                // Where somebody is just saving the record, the line is taken up again after that.
                if (! array_key_exists($key, $records) || isset($gone[$row->id])) {
                    continue;
                }
                $done++;
                $record = $records[$key];
                $decision = match (true) {
                    $record === null => $this->strike($row, StruckCode::RecordDeleted, 'the record was deleted'),
                    $row instanceof DueLine => $this->line(
                        $row,
                        $runs[$row->run] ?? null,
                        $record,
                        $settlement,
                        $book,
                        $by,
                        $data,
                        $isFirst,
                        $next,
                    ),
                    $row instanceof DueStart => $this->start($row, $record, $settlement, $book, $starting->get($row->rule)),
                    default => null,
                };
                if ($decision === null) {
                    continue;
                }
                $records[$key] = $decision->after ?? $record;
                $gone += $this->gone($decision);
                foreach ($decision->others as [, $other]) {
                    if (array_key_exists("{$other->type}:{$other->id}", $records)) {
                        $records["{$other->type}:{$other->id}"] = $other;
                    }
                }
            }
        }
        $settlement->flush();

        return $done;
    }

    /**
     * Lines of one record come one after the other, each seeing what the one before has done; those of different records
     * are settled together.
     *
     * @param  list<non-empty-list<DueRow>>  $moments
     * @return list<list<array{DueRow, bool, list<int>}>> each line with whether it is the first of its moment, and the ids that follow in
     *     it
     */
    private function rounds(array $moments): array
    {
        $rounds = [];
        $nth = [];
        foreach ($moments as $moment) {
            foreach ($moment as $index => $row) {
                $key = $row->recordKey();
                $nth[$key] = ($nth[$key] ?? -1) + 1;
                $following = array_map(static fn (DueRow $next): int => $next->id, array_slice($moment, $index + 1));
                $rounds[$nth[$key]][] = [$row, $index === 0, $following];
            }
        }

        return array_values($rounds);
    }

    /** @return array<int, true> ids of lines that a decision struck out or moved, and that are not done in this batch */
    private function gone(Decision $decision): array
    {
        $gone = [];
        foreach ($decision->steps as $step) {
            $ids = match (true) {
                $step instanceof Struck => $step->lines ?? array_map(static fn (PencilledLine $line): int => $line->id, $step->run->lines),
                $step instanceof Retimed => array_keys($step->lines),
                default => [],
            };
            $gone += array_fill_keys($ids, true);
        }

        return $gone;
    }

    /**
     * @param  array<string, mixed>  $data
     * @param  list<int>  $next
     */
    private function line(
        DueLine $row,
        ?Run $run,
        Record $record,
        UnitOfWork $settlement,
        RuleBook $book,
        ?Actor $by,
        array $data,
        bool $isFirst,
        array $next,
    ): ?Decision {
        $now = $this->clock->now();
        $line = array_values(array_filter($run->lines ?? [], static fn (PencilledLine $line): bool => $line->id === $row->id))[0] ?? null;
        $rule = $run === null ? null : $this->rules->page($run->rule, $run->page);
        if ($run === null || $line === null || $rule === null) {
            DeadLetters::line($row, $now, 'its page no longer reads: something it names is gone');

            return null;
        }
        $decision = $settlement->decided($record->type, fn (StoredFacts $facts): Decision => $this->engine->fallDue(
            $line, $rule, $record, $book, $facts, new FixedClock($now), $by !== null, $isFirst, $next,
        ));
        $actor = $by ?? new Actor(null, CauseKind::Rule);
        if ($decision->refusal !== null) {
            return $this->refused($row, $record, $rule, $decision, $actor, $run->entry);
        }
        $change = Change::event($record, new Event(EventKind::LineDue, "line:{$line->id}"), $by?->personId, $now, CauseKind::Rule);
        $settlement->add([$record, $decision->after],
            new DecisionRecord(
                change: $change, decision: $decision, actor: $actor, kind: 'line', data: $data, taskId: null, causeId: $run->entry,
                ruleId: $rule->id,
            ));

        return $decision;
    }

    /** A rule starts on a record that matched when it was put in force, or when its timetable came round. */
    private function start(DueStart $row, Record $record, UnitOfWork $settlement, RuleBook $book, ?StoredRule $stored): ?Decision
    {
        $now = $this->clock->now();
        $page = $stored?->status !== RuleStatus::InForce ? null : $this->rules->page($stored->id, (int) $stored->page, $stored->either_or);
        if ($page === null) {
            return $this->strike($row, StruckCode::NotInForce, 'the rule is not in force');
        }
        $event = new Event($row->event, $row->occasion, $page->trigger->wanted(), $page->id);
        $change = Change::event($record, $event, null, $now, CauseKind::Rule);
        $starts = new StartBook($book, $page);
        $decision = $settlement->decided($record->type, fn (StoredFacts $facts): Decision => $this->isStillSo(
            $page,
            $row->occasion,
            $record,
        )
            ? $this->engine->decide($change, $starts, $facts, new FixedClock($now)) : new Decision($record));
        $actor = new Actor(null, CauseKind::Rule);
        if ($decision->refusal !== null) {
            return $this->refused($row, $record, $page, $decision, $actor, $row->entry ?: null);
        }
        ScheduledLine::rows()->where('id', $row->id)->update(['status' => LineStatus::Inked]);
        if ($decision->steps !== []) {
            $outcome = new DecisionRecord(
                change: $change, decision: $decision, actor: $actor, kind: $row->event->value, data: [], taskId: null,
                causeId: $row->entry ?: null,
            );
            $settlement->add([$record, $decision->after], $outcome);
        }

        return $decision;
    }

    private function refused(DueRow $row, Record $record, Rule $rule, Decision $decision, Actor $by, ?int $cause): null
    {
        $refusal = $decision->refusal ?? throw new \LogicException('Only a refusal is told as one.');
        $type = $this->schemas->schema()->types[$record->type];
        Batch::insert(Entry::class, [$this->save->refused($type, $record->id, $by, $refusal, ['of' => $rule->name], $cause)]);
        DeadLetters::line($row, $this->clock->now(), "a rule refused it: {$refusal->message}");

        return null;
    }

    /** A date that has moved since the rule was put in force sets it off on its own day, or has done so already. */
    private function isStillSo(Rule $rule, string $occasion, Record $record): bool
    {
        return ! $rule->trigger instanceof WaitsForDate || ! $rule->trigger->arriving()->isOccasion($occasion)
            || $rule->trigger->arriving()->isOf($record, $occasion);
    }

    private function strike(DueRow $row, StruckCode $code, string $because): null
    {
        ScheduledLine::rows()->where('id', $row->id)->update(ScheduledLine::struck($code, $because));
        DeadLetters::entry($row, 'struck', $this->clock->now(), $because);
        if ($row instanceof DueLine) {
            RuleRun::close([$row->run]);
        }

        return null;
    }

    /**
     * The records of lines, locked; those that others hold are left out, so that a worker never waits for a person.
     *
     * @param  list<DueRow>  $rows
     * @return array<string, ?Record> by type and id; null for one that is gone
     */
    private function records(array $rows, bool $wait): array
    {
        $byType = [];
        foreach ($rows as $row) {
            $byType[$row->type][$row->record] = true;
        }
        ksort($byType);
        $records = [];
        foreach ($byType as $name => $ids) {
            $type = $this->schemas->schema()->type((string) $name);
            if ($type === null) {
                continue;
            }
            $of = static fn (array $ids): Builder => StoredRecord::rowsOf($type)->whereIn('id', array_keys($ids));
            foreach ($of($ids)->orderBy('id')->lock($wait ? true : Lock::SKIP)->get() as $row) {
                $records["{$name}:{$row->id}"] = Columns::record($type, $row);
                unset($ids[(int) $row->id]);
            }
            $there = $ids === [] ? [] : $of($ids)->pluck('id', 'id')->all();
            foreach (array_diff_key($ids, $there) as $id => $true) {
                $records["{$name}:{$id}"] = null;
            }
        }

        return $records;
    }
}
