<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use App\Models\SignOffSeat;
use App\Models\StoredSignOff;
use App\Store\Sql\Batch;
use VividLedger\Engine\Deed;
use VividLedger\Engine\LineDone;
use VividLedger\Rule\Performance\SignOffAsked;

/** Sign-offs that lines asked for, gathered so that it takes few statements. */
final class SignOffRows
{
    /** @var list<array{array<string, mixed>, SignOffAsked}> */
    private array $asked = [];

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
                'wakes_at' => $asked->wakes === null ? null : Columns::moment($asked->wakes),
            ], $asked];
        }
    }

    /** @param  array<int, int>  $runs  ids of the runs that began, by the number of the entry that began them */
    public function write(array $runs): void
    {
        if ($this->asked === []) {
            return;
        }
        $rows = array_map(
            static fn (array $one): array => ['run_id' => $one[0]['run_id'] ?? $runs[$one[0]['entry_id']] ?? null] + $one[0],
            $this->asked,
        );
        $seats = [];
        foreach (Batch::insertForIds(StoredSignOff::class, $rows) as $index => $id) {
            foreach ($this->asked[$index][1]->moved->signOff->seats as $place => $seat) {
                $seats[] = SignOffSeat::row($id, $place, $seat);
            }
        }
        Batch::insert(SignOffSeat::class, $seats);
    }
}
