<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Columns;
use App\Models\Events\CallsWait;
use App\Models\Outbound\CallStatus;
use App\Models\Outbound\StoredCall;
use App\Store\Sql\Batch;
use App\Store\Timing\AskedRows;
use VividLedger\Engine\ExecutedStep;

/** Calls that lines want made, gathered so that it takes few statements. They are made afterwards, by a worker. */
final class CallRows extends AskedRows
{
    /** @param  int  $entry  number of the entry of the deed */
    public function add(ExecutedStep $step, int $entry): void
    {
        foreach ($step->performance->calls as $index => $made) {
            $this->rows[] = [
                'key' => substr(hash('sha256', "call:{$entry}:{$index}"), 0, 40), 'endpoint' => $made->endpoint,
                'rule_id' => $step->rule->id, 'page' => $step->rule->page, 'place' => $made->place, 'line_key' => $made->key,
                'run_id' => self::runOf($step), 'record_type' => $made->record->type,
                'record_id' => $made->record->id, 'entry_id' => $entry,
                'payload' => $made->payload === [] ? '{}' : Columns::json($made->payload), 'status' => CallStatus::Waiting,
                'made_at' => Columns::moment($step->performance->now), 'next_try_at' => gmdate('Y-m-d H:i:s'),
            ];
        }
    }

    /** @param  array<int, int>  $runs  ids of the runs that began, by the number of the entry that began them */
    public function write(array $runs): void
    {
        if ($this->rows === []) {
            return;
        }
        Batch::insert(StoredCall::class, $this->withRuns($runs));
        event(new CallsWait);
    }
}
