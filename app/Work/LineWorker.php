<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Actor;
use App\Store\Batch;
use App\Store\Columns;
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
use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\FixedClock;
use VividLedger\Engine\PencilledLine;
use VividLedger\Engine\Retimed;
use VividLedger\Engine\Run;
use VividLedger\Engine\Struck;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;

/**
 * Puts into ink what falls due. Any number of workers may run: a batch is claimed with SKIP LOCKED and done in the same
 * transaction, so a worker that dies leaves its batch to the next one, and no line is done twice.
 */
final readonly class LineWorker
{
    public function __construct(
        private Connection $db,
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
        return $this->db->transaction(function () use ($batch): int {
            $rows = $this->db->select(self::claim($batch), [Columns::moment($this->clock->now())]);

            return $rows === [] ? 0 : $this->perform($rows);
        }, 5);
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
     * @param  array<object>  $rows
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
        foreach ($this->rounds($rows) as $round) {
            $settlement->flush();
            $runs = RunsInPlay::byIds($this->db, array_values(array_unique(array_map(intval(...), array_filter(array_column($round, 'run_id'))))));
            foreach ($round as $row) {
                $key = "{$row->record_type}:{$row->record_id}";
                // Where somebody is just saving the record, the line is taken up again after that.
                if (! array_key_exists($key, $records) || isset($gone[$row->id])) {
                    continue;
                }
                $done++;
                $decision = $this->decided($row, $runs, $records[$key], $settlement, $now, $by, $data);
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
     * @param  list<object>  $rows
     * @return list<list<object>>
     */
    private function rounds(array $rows): array
    {
        $rounds = [];
        $nth = [];
        foreach ($rows as $row) {
            $key = "{$row->record_type}:{$row->record_id}";
            $nth[$key] = ($nth[$key] ?? -1) + 1;
            $rounds[$nth[$key]][] = $row;
        }

        return $rounds;
    }

    /**
     * @param  array<int, Run>  $runs
     * @param  array<string, mixed>  $data
     */
    private function decided(object $row, array $runs, ?Record $record, Settlement $settlement, \DateTimeImmutable $now, ?Actor $by, array $data): ?Decision
    {
        if ($record === null) {
            $this->leaveOut($row, 'the record was deleted', 'struck');

            return null;
        }
        try {
            return $row->run_id === null ? $this->start($row, $record, $settlement, $now) : $this->line($row, $runs, $record, $settlement, $now, $by, $data);
        } catch (QueryException $lost) {
            throw $lost;
        } catch (\Throwable $broken) {
            report($broken);
            $this->leaveOut($row, 'it could not be done: '.mb_substr($broken->getMessage(), 0, 80), 'failed');

            return null;
        }
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
     */
    private function line(object $row, array $runs, Record $record, Settlement $settlement, \DateTimeImmutable $now, ?Actor $by, array $data): ?Decision
    {
        $run = $runs[(int) $row->run_id] ?? null;
        $line = array_values(array_filter($run->lines ?? [], static fn (PencilledLine $line): bool => $line->id === (int) $row->id))[0] ?? null;
        $rule = $run === null ? null : $this->rules->page($run->rule, $run->page);
        if ($run === null || $line === null || $rule === null) {
            $this->leaveOut($row, 'its page no longer reads: something it names is gone', 'failed');

            return null;
        }
        $book = new RememberedRuleBook($this->rules);
        $decision = $settlement->decided($record->type, fn (StoredFacts $facts): Decision => $this->engine->fallDue($line, $rule, $record, $book, $facts, new FixedClock($now), $by !== null));
        if ($decision->refusal !== null) {
            $this->leaveOut($row, "a rule refused it: {$decision->refusal->message}", 'failed');

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
        $this->db->update('UPDATE scheduled_lines SET status = ?, struck_because = ? WHERE id = ?', [$page === null ? 'struck' : 'inked', $page === null ? 'the rule is not in force' : null, $row->id]);
        if ($page === null) {
            return null;
        }
        $kind = $row->kind === 'round' ? EventKind::CameRound : EventKind::PutInForce;
        $change = Change::event($record, new Event($kind, $row->note, $page->trigger->wanted(), (int) $row->rule_id), null, $now, CauseKind::Rule);
        $book = new RememberedRuleBook($this->rules, $page);
        $decision = $settlement->decided($record->type, fn (StoredFacts $facts): Decision => $this->engine->decide($change, $book, $facts, new FixedClock($now)));
        if ($decision->steps !== [] && $decision->refusal === null) {
            $settlement->add([$record, $decision->after], new Outcome($change, $decision, new Actor(null, CauseKind::Rule), $kind->value, [], null, (int) $row->entry_id ?: null));
        }

        return $decision;
    }

    /** What cannot be done any more is told, and does not stand in the way of what comes behind it. */
    private function leaveOut(object $row, string $because, string $status): void
    {
        $this->db->update('UPDATE scheduled_lines SET status = ?, struck_because = ? WHERE id = ?', [$status, mb_substr($because, 0, 120), $row->id]);
        Batch::insert($this->db, 'entries', [[
            'kind' => $status === 'failed' ? 'line_failed' : 'struck', 'at' => Columns::moment($this->clock->now()), 'via' => 'rule', 'record_type' => $row->record_type, 'record_id' => $row->record_id,
            'rule_id' => $row->rule_id, 'page' => $row->page, 'cause_id' => $row->entry_id ?: null,
            'data' => json_encode(['because' => $because, 'lines' => [['said' => $row->said, 'due' => Columns::iso($row->due_at)]]], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        ]]);
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
