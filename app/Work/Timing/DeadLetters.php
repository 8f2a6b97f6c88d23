<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Ledger\Entry;
use App\Models\Timing\LineSort;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\ScheduledLine;
use App\Store\Sql\Batch;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Value;
use VividLedger\Rule\Rule;

/** What cannot be done, even alone, is set aside where people see it and try it again; an entry says what the matter was. */
final class DeadLetters
{
    private const LENGTH = 160;

    private const SAID = 200;

    /** @param  DueRow  $row  locked */
    public static function line(DueRow $row, \DateTimeImmutable $at, string $because): void
    {
        ScheduledLine::rows()->where('id', $row->id)->update([
            'status' => LineStatus::Failed, 'struck_because' => mb_substr($because, 0, self::SAID),
        ]);
        self::entry($row, 'line_failed', $at, $because);
        if ($row instanceof DueLine) {
            RuleRun::close([$row->run]);
        }
    }

    public static function entry(DueRow $row, string $kind, \DateTimeImmutable $at, string $because): void
    {
        $due = $row->due === null ? null : Value::instantText($row->due);
        Batch::insert(Entry::class, [Entry::row($kind, $at, ['because' => $because, 'lines' => [['said' => $row->said, 'due' => $due]]], [
            'via' => CauseKind::Rule, 'record_type' => $row->type, 'record_id' => $row->record, 'rule_id' => $row->rule,
            'page' => $row->page,
            'task_id' => $row instanceof DueTask ? $row->task : null, 'cause_id' => $row->entry ?: null,
        ])]);
    }

    /** A start that a sweep found and that cannot be made; it stands among the lines, to be tried again like one. */
    public static function start(Rule $rule, int $record, string $occasion, \DateTimeImmutable $at, \Throwable $broken): void
    {
        $line = ScheduledLine::query()->create([
            'sort' => LineSort::Start, 'kind' => 'start', 'status' => LineStatus::Failed, 'due_at' => $at, 'record_type' => $rule->on,
            'record_id' => $record, 'entry_id' => 0, 'rule_id' => $rule->id, 'page' => $rule->page, 'occasion' => $occasion,
            'said' => mb_substr($rule->name, 0, self::SAID), 'struck_because' => self::because($broken),
        ]);
        self::entry(DueRows::one($line->id), 'line_failed', $at, self::because($broken));
    }

    public static function because(\Throwable $broken): string
    {
        $message = (string) preg_replace('/\s+/', ' ', $broken->getMessage());

        return 'it could not be done: '.mb_strimwidth($message, 0, self::LENGTH, '…');
    }
}
