<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use App\Models\Columns;
use App\Store\Outbound\CallRows;
use App\Store\SignOffs\SignOffRows;
use App\Store\Slips\SlipRows;
use App\Store\Timing\LineRows;
use VividLedger\Engine\HeldBack;
use VividLedger\Message\Message;
use VividLedger\Record\Change;
use VividLedger\Record\Record;

/** Rows on their way into the tables beside the entries, gathered so that each table takes few statements. */
final class LedgerRows
{
    /** @var list<array<string, mixed>> */
    public array $guards = [];

    /** @var list<array<string, mixed>> */
    public array $resets = [];

    /** @var list<array<string, mixed>> */
    public array $history = [];

    /** @var list<array<string, mixed>> */
    public array $tasks = [];

    /** @var array<string, list<int>> tasks that have lapsed, by why */
    public array $lapsed = [];

    /** @var list<array<string, mixed>> */
    public array $comments = [];

    /** @var list<array{Record, int, bool}> */
    public array $follows = [];

    /** @var list<array{Message, Record, int, int, \DateTimeImmutable}> each with its record, rule, entry and moment */
    public array $messages = [];

    /** @var list<array<string, mixed>> what rules could not answer because their record was locked */
    public array $held = [];

    public function __construct(
        public readonly LineRows $lines = new LineRows,
        public readonly SignOffRows $signOffs = new SignOffRows,
        public readonly SlipRows $slips = new SlipRows,
        public readonly CallRows $calls = new CallRows,
    ) {
    }

    public function held(HeldBack $step): void
    {
        if (! $step->comesAgain()) {
            return;
        }
        $change = $step->answered;
        $event = $change->event;
        $this->held[] = [
            'sign_off_id' => $step->lock->signOff, 'rule_id' => $step->rule->id, 'page' => $step->rule->page,
            'record_type' => $change->record()->type, 'record_id' => $change->record()->id,
            'before' => $change->before === null || $event !== null ? null
                : Columns::json(['version' => $change->before->version, 'values' => $change->before->values]),
            'event' => $event === null ? null : Columns::json([
                'kind' => $event->kind->value, 'key' => $event->key, 'text' => $event->text, 'rule' => $event->ruleId,
                'from' => $event->from,
            ]),
            'actor_id' => $change->actor, 'via' => $change->cause,
        ];
    }

    /** @param  list<string>  $fields  names of the fields that differ */
    public function history(array $fields, int $entry, Change $change): void
    {
        $record = $change->record();
        foreach ($fields as $name) {
            $this->history[] = [
                'entry_id' => $entry, 'record_type' => $record->type, 'record_id' => $record->id, 'field' => $name,
                'before' => Columns::json($change->before?->value($name)), 'after' => Columns::json($change->after?->value($name)),
            ];
        }
    }
}
