<?php

declare(strict_types=1);

namespace Bench;

/** The floor of a save: prepared PDO statements that write what the store writes, with nothing decided. */
final class PlainSave
{
    private int $count = 0;

    /** @var array<string, \PDOStatement> prepared once */
    private array $statements = [];

    private readonly string $explanation;

    public function __construct(
        private readonly \PDO $pdo,
        private readonly int $id,
    ) {
        $this->explanation = (string) $pdo->query("SELECT data FROM entries WHERE kind = 'fired' ORDER BY id DESC LIMIT 1")->fetchColumn();
    }

    public function save(): void
    {
        $this->count++;
        $now = gmdate('Y-m-d H:i:s');
        $this->run("UPDATE records_ticket SET review = NULL, topic = 'invoice' WHERE id = ?", [$this->id]);
        $this->pdo->beginTransaction();
        $this->run('SELECT * FROM records_ticket WHERE id = ? FOR UPDATE', [$this->id])->fetchAll();
        $this->run(
            'UPDATE records_ticket SET hours = ?, review = ?, topic = ?, updated_at = ?, version = version + 1 WHERE id = ?',
            [$this->count % 90, 'needed', 'visit', $now, $this->id],
        );
        $saved = $this->entry('changed', $now, null, '{"changes":[{"field":"hours","label":"Hours spent","before":"1","after":"2"}]}');
        $this->history($saved, 'hours');
        foreach (['review', 'topic', 'task'] as $rule => $field) {
            $entry = $this->entry('fired', $now, $saved, $this->explanation);
            $this->run(
                'INSERT INTO guard_keys (rule_id, record_type, record_id, guard_key, entry_id) VALUES (?, ?, ?, ?, ?)',
                [$rule + 1_000_000, 'ticket', $this->id, "version:{$this->count}", $entry],
            );
            if ($field !== 'task') {
                $this->history($entry, $field);

                continue;
            }
            $this->run(
                'INSERT INTO tasks (title, record_type, record_id, assignee_id, rule_id, entry_id, given_at, due_at) VALUES (?, ?, ?, ?, '
                    .'?, ?, ?, ?)',
                ['Look at it', 'ticket', $this->id, 1, 1, $entry, $now, $now],
            );
            $task = $this->pdo->lastInsertId();
            $this->run(
                'INSERT INTO scheduled_lines (kind, due_at, record_type, record_id, task_id, entry_id) VALUES (?, ?, ?, ?, ?, ?)',
                ['task_due', $now, 'ticket', $this->id, $task, $entry],
            );
        }
        $this->pdo->commit();
    }

    private function entry(string $kind, string $now, ?string $cause, string $data): string
    {
        $this->run(
            'INSERT INTO entries (kind, at, actor_id, via, record_type, record_id, version, rule_id, page, cause_id, data) VALUES (?, ?, '
                .'?, ?, ?, ?, ?, ?, ?, ?, ?)',
            [$kind, $now, 1, 'person', 'ticket', $this->id, $this->count, 1, 1, $cause, $data],
        );

        return (string) $this->pdo->lastInsertId();
    }

    private function history(string $entry, string $field): void
    {
        $this->run(
            'INSERT INTO field_history (entry_id, record_type, record_id, field, `before`, `after`) VALUES (?, ?, ?, ?, ?, ?)',
            [$entry, 'ticket', $this->id, $field, 'null', '"x"'],
        );
    }

    /** @param  list<mixed>  $bindings */
    private function run(string $sql, array $bindings): \PDOStatement
    {
        $statement = $this->statements[$sql] ??= $this->pdo->prepare($sql);
        $statement->execute($bindings);

        return $statement;
    }
}
