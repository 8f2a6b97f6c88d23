<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\Casts\Lines;
use App\Models\Columns;
use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Sql\Batch;
use App\Store\Timing\AskedRows;
use VividLedger\Engine\ExecutedStep;
use VividLedger\Rule\Performance\SignOffAsked;

/** Sign-offs that lines asked for, gathered so that it takes few statements. */
final class SignOffRows extends AskedRows
{
    /** @var list<SignOffAsked> by row */
    private array $asked = [];

    /** @param  int  $entry  number of the entry of the deed */
    public function add(ExecutedStep $step, int $entry): void
    {
        foreach ($step->performance->signOffs as $asked) {
            $signOff = $asked->moved->signOff;
            $this->rows[] = [
                'rule_id' => $step->rule->id, 'page' => $step->rule->page, 'place' => $asked->place, 'line_key' => $asked->key,
                'run_id' => self::runOf($step),
                'record_type' => $asked->record->type, 'record_id' => $asked->record->id, 'asker_id' => $signOff->asker,
                'why' => $asked->why, 'tells' => Lines::text($asked->tells), 'status' => $signOff->status, 'step' => $signOff->step,
                'needed' => $signOff->needed,
                'queue' => Columns::json($signOff->queue), 'entry_id' => $entry, 'started_at' => Columns::moment($signOff->startedAt),
                'ended_at' => $signOff->endedAt === null ? null : Columns::moment($signOff->endedAt),
                'wakes_at' => $asked->wakes === null ? null : Columns::moment($asked->wakes), 'hold' => $asked->hold,
                'route' => $asked->route->file === null ? null : Columns::json($asked->route->file),
            ];
            $this->asked[] = $asked;
        }
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
        $rows = $this->withRuns($runs);
        $seats = [];
        $begun = [];
        foreach (Batch::insertForIds(StoredSignOff::class, $rows) as $index => $id) {
            $begun[] = [$id, $this->asked[$index], (int) $rows[$index]['entry_id']];
            foreach ($this->asked[$index]->moved->signOff->seats as $place => $seat) {
                $seats[] = SignOffSeat::row($id, $place, $seat);
            }
        }
        Batch::insert(SignOffSeat::class, $seats);

        return $begun;
    }
}
