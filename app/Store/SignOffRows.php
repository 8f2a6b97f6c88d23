<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use App\Models\SignOffSeat;
use App\Models\StoredSignOff;
use App\Store\Sql\Batch;
use VividLedger\Engine\Deed;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\Step;
use VividLedger\Engine\Struck;
use VividLedger\Rule\Performance\SignOffAsked;

/** Sign-offs that lines asked for, gathered so that it takes few statements. */
final class SignOffRows
{
    /** @var list<array{array<string, mixed>, SignOffAsked, int}> row, what is asked for, and the rule */
    private array $asked = [];

    /** @var list<int> ids of runs */
    private array $struck = [];

    /** @param  int  $entry  number of the entry of the deed */
    public function add(Deed $step, int $entry): void
    {
        foreach ($step->performance->signOffs as $asked) {
            $signOff = $asked->moved->signOff;
            $this->asked[] = [[
                'rule_id' => $step->rule->id, 'page' => $step->rule->page, 'place' => $asked->place, 'line_key' => $asked->key,
                'run_id' => $step instanceof LineDone ? $step->line->run->id : null,
                'record_type' => $asked->record->type, 'record_id' => $asked->record->id, 'asker_id' => $signOff->asker,
                'why' => $asked->why, 'status' => $signOff->status, 'step' => $signOff->step, 'needed' => $signOff->needed,
                'queue' => Columns::json($signOff->queue), 'entry_id' => $entry, 'started_at' => Columns::moment($signOff->startedAt),
                'ended_at' => $signOff->endedAt === null ? null : Columns::moment($signOff->endedAt),
                'wakes_at' => $asked->wakes === null ? null : Columns::moment($asked->wakes), 'hold' => $asked->hold,
                'route' => $asked->route->file === null ? null : Columns::json($asked->route->file),
            ], $asked, $step->rule->id];
        }
    }

    /** A run that is struck out takes what it asked for with it. */
    public function struck(Step $step): void
    {
        if ($step instanceof Struck && $step->lines === null) {
            $this->struck[] = $step->run->id;
        }
    }

    /**
     * @return array{list<array{rule_id: int, place: int, record_type: string, record_id: int}>, list<int>} what lines ask for, and runs
     *     that are struck out
     */
    public function past(): array
    {
        return [array_map(static fn (array $one): array => [
            'rule_id' => $one[2], 'place' => $one[1]->place, 'record_type' => $one[1]->record->type, 'record_id' => $one[1]->record->id,
        ], $this->asked), $this->struck];
    }

    /**
     * @param  array<int, int>  $runs  ids of the runs that began, by the number of the entry that began them
     * @return list<array{int, SignOffAsked, int}> id, what was asked for, and the number of the entry
     */
    public function write(array $runs): array
    {
        if ($this->asked === []) {
            return [];
        }
        $rows = array_map(
            static fn (array $one): array => ['run_id' => $one[0]['run_id'] ?? $runs[$one[0]['entry_id']] ?? null] + $one[0],
            $this->asked,
        );
        $seats = [];
        $begun = [];
        foreach (Batch::insertForIds(StoredSignOff::class, $rows) as $index => $id) {
            $begun[] = [$id, $this->asked[$index][1], (int) $rows[$index]['entry_id']];
            foreach ($this->asked[$index][1]->moved->signOff->seats as $place => $seat) {
                $seats[] = SignOffSeat::row($id, $place, $seat);
            }
        }
        Batch::insert(SignOffSeat::class, $seats);

        return $begun;
    }
}
