<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Actor;
use App\Store\Batch;
use App\Store\Columns;
use App\Store\LedgerConnection;
use App\Store\LineRows;
use App\Store\Outcome;
use App\Store\RememberedRuleBook;
use App\Store\RunsInPlay;
use App\Store\SaveRecord;
use App\Store\SchemaStore;
use App\Store\Settlement;
use App\Store\StoredFacts;
use App\Store\StoredRuleBook;
use App\Store\TypeTable;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\FixedClock;
use VividLedger\Engine\PencilledLine;
use VividLedger\Engine\Retimed;
use VividLedger\Engine\Run;
use VividLedger\Engine\Struck;
use VividLedger\Engine\StruckCode;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\DateArrives;

/**
 * Puts into ink what falls due. Any number of workers may run: a batch is claimed with SKIP LOCKED and done in the same
 * transaction, so a worker that dies leaves its batch to the next one, and no line is done twice. Where one line spoils a
 * batch, each is done by itself, and the one that cannot be done is set aside.
 */
final readonly class LineWorker
{
    public function __construct(
        private LedgerConnection $db,
        private HouseClock $clock,
        private SchemaStore $schemas,
        private StoredRuleBook $rules,
        private Engine $engine,
        private SaveRecord $save,
    ) {
    }

    /** The statement that claims what is due; what other workers hold is passed over. */
    public static function claim(int $batch): string
    {
        return "SELECT * FROM scheduled_lines WHERE status = 'pencilled' AND due_at <= ? ORDER BY due_at, id LIMIT {$batch} FOR UPDATE SKIP LOCKED";
    }

    /** @return int how many lines came to their end; fewer than a batch means that nothing more is due, or others are at it */
    public function work(int $batch): int
    {
        $claimed = [];
        try {
            return $this->db->transaction(function () use ($batch, &$claimed): int {
                $claimed = $this->db->select(self::claim($batch), [Columns::moment($this->clock->now())]);

                return $claimed === [] ? 0 : $this->perform($this->wholeMoments($claimed));
            });
        } catch (\Throwable $broken) {
            if ($claimed === [] || $this->db->isGone($broken)) {
                throw $broken;
            }
            report($broken);

            return array_sum(array_map($this->alone(...), $this->moments($claimed)));
        }
    }

    /**
     * Does one line now, whenever it was to fall due. The line is locked already.
     *
     * @param  array<string, mixed>  $data  what the entry keeps besides
     */
    public function performNow(object $row, Actor $actor, array $data): void
    {
        $this->perform([$row], $actor, $data);
    }

    /**
     * The lines of one moment, in a transaction of their own; where they cannot be done together, line by line.
     *
     * @param  non-empty-list<object>  $moment
     */
    private function alone(array $moment): int
    {
        $ids = implode(', ', array_column($moment, 'id'));
        try {
            return $this->db->transaction(function () use ($ids): int {
                $rows = $this->db->select(
                    "SELECT * FROM scheduled_lines WHERE id IN ({$ids}) AND status = 'pencilled' ORDER BY due_at, id FOR UPDATE SKIP LOCKED",
                );

                return $rows === [] ? 0 : $this->perform($this->wholeMoments($rows));
            });
        } catch (\Throwable $broken) {
            if ($this->db->isGone($broken)) {
                throw $broken;
            }
            report($broken);
            if (count($moment) > 1) {
                return array_sum(array_map(fn (object $row): int => $this->single($row), $moment));
            }

            return $this->setAside($moment[0], $broken);
        }
    }

    /** One line of a moment of which another cannot be done. */
    private function single(object $row): int
    {
        try {
            return $this->db->transaction(function () use ($row): int {
                $rows = $this->db->select(
                    "SELECT * FROM scheduled_lines WHERE id = ? AND status = 'pencilled' FOR UPDATE SKIP LOCKED",
                    [$row->id],
                );

                return $rows === [] ? 0 : $this->perform($rows);
            });
        } catch (\Throwable $broken) {
            if ($this->db->isGone($broken)) {
                throw $broken;
            }
            report($broken);

            return $this->setAside($row, $broken);
        }
    }

    private function setAside(object $row, \Throwable $broken): int
    {
        $this->db->transaction(function () use ($row, $broken): void {
            $still = $this->db->selectOne("SELECT * FROM scheduled_lines WHERE id = ? AND status = 'pencilled' FOR UPDATE", [$row->id]);
            if ($still !== null) {
                SetAside::line($this->db, $still, $this->clock->now(), SetAside::because($broken));
            }
        });

        return 1;
    }

    /**
     * Lines of one moment are done together, so a moment that is claimed in part is fetched whole; where another worker has the
     * rest of it, it is left for the next round.
     *
     * @param  array<object>  $rows
     * @return list<object>
     */
    private function wholeMoments(array $rows): array
    {
        $last = end($rows);
        $edge = $last === false ? null : $last->due_at;
        $runs = array_values(array_unique(array_filter(array_map(
            static fn (object $row): int => $row->due_at === $edge ? (int) $row->run_id : 0,
            $rows,
        ))));
        $held = array_column($rows, 'id', 'id');
        if ($runs !== []) {
            // Only at its end can a batch cut a moment in two.
            foreach ($this->db->select("SELECT * FROM scheduled_lines WHERE status = 'pencilled' AND due_at = ? AND run_id IN (".implode(', ', $runs).') ORDER BY id FOR UPDATE SKIP LOCKED', [$edge]) as $row) {
                if (! isset($held[$row->id])) {
                    $rows[] = $row;
                    $held[$row->id] = $row->id;
                }
            }
        }
        $all = array_values(array_unique(array_filter(array_map(static fn (object $row): int => (int) $row->run_id, $rows))));
        $split = [];
        foreach ($all === [] ? [] : $this->db->select("SELECT id, run_id, due_at FROM scheduled_lines WHERE status = 'pencilled' AND run_id IN (".implode(', ', $all).') AND due_at <= ?', [$edge]) as $row) {
            if (! isset($held[$row->id])) {
                $split["{$row->run_id} {$row->due_at}"] = true;
            }
        }

        return array_values(array_filter($rows, static fn (object $row): bool => ! isset($split["{$row->run_id} {$row->due_at}"])));
    }

    /**
     * @param  array<object>  $rows
     * @return list<non-empty-list<object>> those of one run that fall due at the same moment together, in the order written
     */
    private function moments(array $rows): array
    {
        $moments = [];
        foreach ($rows as $row) {
            $moments[$row->run_id === null ? "line {$row->id}" : "{$row->run_id} {$row->due_at}"][] = $row;
        }
        foreach ($moments as &$moment) {
            usort(
                $moment,
                static fn (object $one, object $other): int => [(int) $one->place, (int) $one->id] <=> [
                    (int) $other->place, (int) $other->id,
                ],
            );
        }

        return array_values($moments);
    }

    /**
     * @param  list<object>  $rows
     * @param  ?Actor  $by  who wants it now; null when its time has come
     * @param  array<string, mixed>  $data
     */
    private function perform(array $rows, ?Actor $by = null, array $data = []): int
    {
        $now = $this->clock->now();
        $done = $this->tasksFallDue(array_values(array_filter($rows, static fn (object $row): bool => $row->kind === 'task_due')));
        $rows = array_values(array_filter($rows, static fn (object $row): bool => $row->kind !== 'task_due'));
        if ($rows === []) {
            return $done;
        }
        $records = $this->records($rows, $by !== null);
        $settlement = $this->save->settlement($now);
        $gone = [];
        foreach ($this->rounds($this->moments($rows)) as $round) {
            $settlement->flush();
            $runs = RunsInPlay::byIds(
                $this->db,
                array_values(array_unique(array_map(
                    static fn (array $line): int => (int) $line[0]->run_id,
                    array_filter($round, static fn (array $line): bool => $line[0]->run_id !== null),
                ))),
            );
            foreach ($round as [$row, $isFirst, $next]) {
                $key = "{$row->record_type}:{$row->record_id}";
                // Where somebody is just saving the record, the line is taken up again after that.
                if (! array_key_exists($key, $records) || isset($gone[$row->id])) {
                    continue;
                }
                $done++;
                $decision = $this->decided($row, $runs, $records[$key], $settlement, $now, $by, $data, $isFirst, $next);
                if ($decision === null) {
                    continue;
                }
                $records[$key] = $decision->after ?? $records[$key];
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
     * @param  list<non-empty-list<object>>  $moments
     * @return list<list<array{object, bool, list<int>}>> each line with whether it is the first of its moment, and the ids of those that follow in it
     */
    private function rounds(array $moments): array
    {
        $rounds = [];
        $nth = [];
        foreach ($moments as $moment) {
            foreach ($moment as $index => $row) {
                $key = "{$row->record_type}:{$row->record_id}";
                $nth[$key] = ($nth[$key] ?? -1) + 1;
                $rounds[$nth[$key]][] = [
                    $row, $index === 0, array_map(static fn (object $next): int => (int) $next->id, array_slice($moment, $index + 1)),
                ];
            }
        }

        return $rounds;
    }

    /**
     * @param  array<int, Run>  $runs
     * @param  array<string, mixed>  $data
     * @param  list<int>  $next
     */
    private function decided(
        object $row,
        array $runs,
        ?Record $record,
        Settlement $settlement,
        \DateTimeImmutable $now,
        ?Actor $by,
        array $data,
        bool $isFirst,
        array $next,
    ): ?Decision {
        if ($record === null) {
            $this->strike($row, StruckCode::RecordDeleted, 'the record was deleted');

            return null;
        }

        return $row->run_id === null ? $this->start($row, $record, $settlement, $now) : $this->line(
            $row,
            $runs,
            $record,
            $settlement,
            $now,
            $by,
            $data,
            $isFirst,
            $next,
        );
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
     * @param  array<int, Run>  $runs
     * @param  array<string, mixed>  $data
     * @param  list<int>  $next
     */
    private function line(
        object $row,
        array $runs,
        Record $record,
        Settlement $settlement,
        \DateTimeImmutable $now,
        ?Actor $by,
        array $data,
        bool $isFirst,
        array $next,
    ): ?Decision {
        $run = $runs[(int) $row->run_id] ?? null;
        $line = array_values(array_filter($run->lines ?? [], static fn (PencilledLine $line): bool => $line->id === (int) $row->id))[0] ?? null;
        $rule = $run === null ? null : $this->rules->page($run->rule, $run->page);
        if ($run === null || $line === null || $rule === null) {
            SetAside::line($this->db, $row, $now, 'its page no longer reads: something it names is gone');

            return null;
        }
        $book = new RememberedRuleBook($this->rules);
        $decision = $settlement->decided(
            $record->type,
            fn (StoredFacts $facts): Decision => $this->engine->fallDue(
                $line,
                $rule,
                $record,
                $book,
                $facts,
                new FixedClock($now),
                $by !== null,
                $isFirst,
                $next,
            ),
        );
        if ($decision->refusal !== null) {
            Batch::insert(
                $this->db,
                'entries',
                [
                    $this->save->refused(
                        $this->schemas->schema()->types[$record->type],
                        $record->id,
                        $by ?? new Actor(null, CauseKind::Rule),
                        $decision->refusal,
                        ['of' => $rule->name],
                        $run->entry,
                    ),
                ],
            );
            SetAside::line($this->db, $row, $now, "a rule refused it: {$decision->refusal->message}");

            return null;
        }
        $change = Change::event($record, new Event(EventKind::LineDue, "line:{$line->id}"), $by?->personId, $now, CauseKind::Rule);
        $settlement->add([$record, $decision->after], new Outcome($change, $decision, $by ?? new Actor(null, CauseKind::Rule), 'line', $data, null, $run->entry, $rule->id));

        return $decision;
    }

    /** A rule starts on a record that matched when it was put in force, or when its timetable came round. */
    private function start(object $row, Record $record, Settlement $settlement, \DateTimeImmutable $now): ?Decision
    {
        $rule = $this->db->selectOne('SELECT page, status, either_or FROM rules WHERE id = ?', [$row->rule_id]);
        $page = $rule === null || $rule->status !== 'in_force' ? null : $this->rules->page((int) $row->rule_id, (int) $rule->page, $rule->either_or);
        if ($page === null) {
            $this->strike($row, StruckCode::NotInForce, 'the rule is not in force');

            return null;
        }
        $kind = $row->kind === 'round' ? EventKind::CameRound : EventKind::PutInForce;
        $change = Change::event(
            $record,
            new Event($kind, (string) $row->occasion, $page->trigger->wanted(), (int) $row->rule_id),
            null,
            $now,
            CauseKind::Rule,
        );
        $book = new RememberedRuleBook($this->rules, $page);
        $decision = $settlement->decided($record->type, function (StoredFacts $facts) use ($change, $book, $page, $row, $record, $now): Decision {
            return $this->isStillSo($page, (string) $row->occasion, $record) ? $this->engine->decide(
                $change,
                $book,
                $facts,
                new FixedClock($now),
            ) : new Decision($record);
        });
        if ($decision->refusal !== null) {
            Batch::insert(
                $this->db,
                'entries',
                [
                    $this->save->refused(
                        $this->schemas->schema()->types[$record->type],
                        $record->id,
                        new Actor(null, CauseKind::Rule),
                        $decision->refusal,
                        ['of' => $page->name],
                        (int) $row->entry_id ?: null,
                    ),
                ],
            );
            SetAside::line($this->db, $row, $now, "a rule refused it: {$decision->refusal->message}");

            return null;
        }
        $this->db->update("UPDATE scheduled_lines SET status = 'inked' WHERE id = ?", [$row->id]);
        if ($decision->steps !== []) {
            $settlement->add([$record, $decision->after], new Outcome($change, $decision, new Actor(null, CauseKind::Rule), $kind->value, [], null, (int) $row->entry_id ?: null));
        }

        return $decision;
    }

    /** A date that has moved since the rule was put in force sets it off on its own day, or has done so already. */
    private function isStillSo(Rule $rule, string $occasion, Record $record): bool
    {
        return ! $rule->trigger instanceof DateArrives || ! $rule->trigger->isOccasion($occasion) || $rule->trigger->isOf($record, $occasion);
    }

    private function strike(object $row, StruckCode $code, string $because): void
    {
        $this->db->update(
            "UPDATE scheduled_lines SET status = 'struck', struck_code = ?, struck_because = ? WHERE id = ?",
            [$code->value, $because, $row->id],
        );
        SetAside::entry($this->db, $row, 'struck', $this->clock->now(), $because);
        if ($row->run_id !== null) {
            LineRows::close($this->db, [(int) $row->run_id]);
        }
    }

    /**
     * The records of lines, locked; those that others hold are left out, so that a worker never waits for a person.
     *
     * @param  list<object>  $rows
     * @return array<string, ?Record> by type and id; null for one that is gone
     */
    private function records(array $rows, bool $wait): array
    {
        $byType = [];
        foreach ($rows as $row) {
            $byType[$row->record_type][(int) $row->record_id] = true;
        }
        ksort($byType);
        $records = [];
        foreach ($byType as $name => $ids) {
            $type = $this->schemas->schema()->type((string) $name);
            if ($type === null) {
                continue;
            }
            $list = implode(', ', array_keys($ids));
            $table = TypeTable::name($type->name);
            foreach ($this->db->select("SELECT * FROM `{$table}` WHERE id IN ({$list}) ORDER BY id FOR UPDATE".($wait ? '' : ' SKIP LOCKED')) as $row) {
                $records["{$name}:{$row->id}"] = Columns::record($type, $row);
                unset($ids[(int) $row->id]);
            }
            if ($ids !== []) {
                $there = array_column($this->db->select("SELECT id FROM `{$table}` WHERE id IN (".implode(', ', array_keys($ids)).')'), 'id', 'id');
                foreach (array_diff_key($ids, $there) as $id => $true) {
                    $records["{$name}:{$id}"] = null;
                }
            }
        }

        return $records;
    }

    /** @param  list<object>  $rows */
    private function tasksFallDue(array $rows): int
    {
        if ($rows === []) {
            return 0;
        }
        $ids = implode(', ', array_column($rows, 'id'));
        $entries = [];
        foreach ($this->db->select(
            "SELECT l.*, t.title, t.rule_id AS task_rule, p.name AS assignee FROM scheduled_lines l
            JOIN tasks t ON t.id = l.task_id LEFT JOIN people p ON p.id = t.assignee_id WHERE l.id IN ({$ids}) ORDER BY l.due_at, l.id",
        ) as $line) {
            $entries[] = [
                'kind' => 'task_due', 'at' => $line->due_at, 'via' => 'rule', 'record_type' => $line->record_type, 'record_id' => $line->record_id,
                'rule_id' => $line->task_rule, 'task_id' => $line->task_id, 'cause_id' => $line->entry_id,
                'data' => json_encode(['title' => $line->title, 'person' => $line->assignee], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            ];
        }
        Batch::insert($this->db, 'entries', $entries);
        $this->db->update("UPDATE scheduled_lines SET status = 'inked' WHERE id IN ({$ids})");

        return count($rows);
    }
}
