<?php

declare(strict_types=1);

namespace App\Store\Slips;

use App\Models\Casts\Lines;
use App\Models\Columns;
use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Store\Sql\Batch;
use App\Store\Timing\AskedRows;
use VividLedger\Engine\ExecutedStep;
use VividLedger\Rule\Line\SendsSlip;
use VividLedger\Rule\Performance\SlipSent;

/** Slips that lines sent, gathered so that it takes few statements. */
final class SlipRows extends AskedRows
{
    /** @var list<array{SlipSent, string}> by row: what is sent, and what the list leads to */
    private array $sent = [];

    /** @param  int  $entry  number of the entry of the deed */
    public function add(ExecutedStep $step, int $entry): void
    {
        foreach ($step->performance->slips as $sent) {
            $slip = $sent->moved->slip;
            $line = $step->rule->line($sent->place)?->bare();
            $target = $line instanceof SendsSlip ? $line->plan()->next?->field()->target : null;
            $this->rows[] = [
                'rule_id' => $step->rule->id, 'page' => $step->rule->page, 'place' => $sent->place, 'line_key' => $sent->key,
                'run_id' => self::runOf($step),
                'record_type' => $sent->record->type, 'record_id' => $sent->record->id, 'subject' => $sent->subject,
                'html' => $sent->html, 'tells' => Lines::text($sent->tells), 'asks' => Columns::json($sent->form->asks),
                'status' => $slip->status,
                'chosen' => Columns::json([]), 'entry_id' => $entry, 'started_at' => Columns::moment($slip->startedAt),
                'ended_at' => $slip->endedAt === null ? null : Columns::moment($slip->endedAt),
                'wakes_at' => $sent->wakes === null ? null : Columns::moment($sent->wakes),
            ];
            $this->sent[] = [$sent, $target ?? ''];
        }
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
        $turns = [];
        $begun = [];
        foreach (Batch::insertForIds(StoredSlip::class, $this->withRuns($runs)) as $index => $id) {
            [$sent, $of] = $this->sent[$index];
            $begun[] = [$id, $sent];
            foreach ($sent->moved->slip->turns as $place => $turn) {
                $turns[] = SlipTurnRow::row($id, $place, $turn, $of);
            }
        }
        Batch::insert(SlipTurnRow::class, $turns);

        return $begun;
    }
}
