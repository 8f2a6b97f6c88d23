<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Batch;
use App\Store\Columns;
use App\Store\LineRows;
use Illuminate\Database\Connection;
use VividLedger\Rule\Rule;

/** What cannot be done, even alone, is set aside where people see it and try it again; an entry says what the matter was. */
final class SetAside
{
    private const LENGTH = 160;

    /** @param  object  $row  of a pencilled line, locked */
    public static function line(Connection $db, object $row, \DateTimeImmutable $at, string $because): void
    {
        $db->update(
            "UPDATE scheduled_lines SET status = 'failed', struck_because = ? WHERE id = ?",
            [mb_substr($because, 0, 200), $row->id],
        );
        self::entry($db, $row, 'line_failed', $at, $because);
        if ($row->run_id !== null) {
            LineRows::close($db, [(int) $row->run_id]);
        }
    }

    public static function entry(Connection $db, object $row, string $kind, \DateTimeImmutable $at, string $because): void
    {
        Batch::insert($db, 'entries', [[
            'kind' => $kind, 'at' => Columns::moment($at), 'via' => 'rule', 'record_type' => $row->record_type, 'record_id' => $row->record_id,
            'rule_id' => $row->rule_id, 'page' => $row->page, 'task_id' => $row->task_id ?? null, 'cause_id' => $row->entry_id ?: null,
            'data' => json_encode(
                ['because' => $because, 'lines' => [['said' => $row->said, 'due' => Columns::iso($row->due_at)]]],
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
            ),
        ]]);
    }

    /** A start that a sweep found and that cannot be made; it stands among the lines, to be tried again like one. */
    public static function start(
        Connection $db,
        Rule $rule,
        int $record,
        string $occasion,
        \DateTimeImmutable $at,
        \Throwable $broken,
    ): void {
        $row = [
            'kind' => 'start', 'status' => 'failed', 'due_at' => Columns::moment($at), 'record_type' => $rule->on, 'record_id' => $record, 'entry_id' => 0, 'rule_id' => $rule->id, 'page' => $rule->page,
            'said' => mb_substr($rule->name, 0, 200), 'occasion' => $occasion, 'struck_because' => self::because($broken),
        ];
        Batch::insert($db, 'scheduled_lines', [$row]);
        self::entry($db, (object) $row, 'line_failed', $at, self::because($broken));
    }

    public static function because(\Throwable $broken): string
    {
        return 'it could not be done: '.mb_strimwidth((string) preg_replace('/\s+/', ' ', $broken->getMessage()), 0, self::LENGTH, '…');
    }
}
