<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use App\Models\SlipTurnRow;
use App\Models\StoredSlip;
use App\Store\Sql\Batch;
use VividLedger\Engine\Deed;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\Step;
use VividLedger\Engine\Struck;
use VividLedger\Rule\Line\SendsSlip;
use VividLedger\Rule\Performance\SlipSent;

/** Slips that lines sent, gathered so that it takes few statements. */
final class SlipRows
{
    /** @var list<array{array<string, mixed>, SlipSent, int, string}> row, what is sent, the rule, and what the list leads to */
    private array $sent = [];

    /** @var list<int> ids of runs */
    private array $struck = [];

    /** @param  int  $entry  number of the entry of the deed */
    public function add(Deed $step, int $entry): void
    {
        foreach ($step->performance->slips as $sent) {
            $slip = $sent->moved->slip;
            $line = $step->rule->line($sent->place)?->bare();
            $target = $line instanceof SendsSlip ? $line->plan()->next?->field()->target : null;
            $this->sent[] = [[
                'rule_id' => $step->rule->id, 'page' => $step->rule->page, 'place' => $sent->place, 'line_key' => $sent->key,
                'run_id' => $step instanceof LineDone ? $step->line->run->id : null,
                'record_type' => $sent->record->type, 'record_id' => $sent->record->id, 'subject' => $sent->subject,
                'html' => $sent->html, 'asks' => Columns::json($sent->form->asks), 'status' => $slip->status,
                'chosen' => Columns::json([]), 'entry_id' => $entry, 'started_at' => Columns::moment($slip->startedAt),
                'ended_at' => $slip->endedAt === null ? null : Columns::moment($slip->endedAt),
                'wakes_at' => $sent->wakes === null ? null : Columns::moment($sent->wakes),
            ], $sent, $step->rule->id, $target ?? ''];
        }
    }

    /** A run that is struck out takes what it sent with it. */
    public function struck(Step $step): void
    {
        if ($step instanceof Struck && $step->lines === null) {
            $this->struck[] = $step->run->id;
        }
    }

    /**
     * @return array{list<array{rule_id: int, place: int, record_type: string, record_id: int}>, list<int>} what lines send, and runs
     *     that are struck out
     */
    public function past(): array
    {
        return [array_map(static fn (array $one): array => [
            'rule_id' => $one[2], 'place' => $one[1]->place, 'record_type' => $one[1]->record->type, 'record_id' => $one[1]->record->id,
        ], $this->sent), $this->struck];
    }

    /**
     * @param  array<int, int>  $runs  ids of the runs that began, by the number of the entry that began them
     * @return list<array{int, SlipSent}> id, and what was sent
     */
    public function write(array $runs): array
    {
        if ($this->sent === []) {
            return [];
        }
        $rows = array_map(
            static fn (array $one): array => ['run_id' => $one[0]['run_id'] ?? $runs[$one[0]['entry_id']] ?? null] + $one[0],
            $this->sent,
        );
        $turns = [];
        $begun = [];
        foreach (Batch::insertForIds(StoredSlip::class, $rows) as $index => $id) {
            [, $sent, , $of] = $this->sent[$index];
            $begun[] = [$id, $sent];
            foreach ($sent->moved->slip->turns as $place => $turn) {
                $turns[] = SlipTurnRow::row($id, $place, $turn, $of);
            }
        }
        Batch::insert(SlipTurnRow::class, $turns);

        return $begun;
    }
}
