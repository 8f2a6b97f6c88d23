<?php

declare(strict_types=1);

namespace App\Store\Slips;

use App\Models\Columns;
use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Store\Sql\Matching;
use VividLedger\Condition\Condition;
use VividLedger\Facts\Candidates;
use VividLedger\Facts\SlipFacts;
use VividLedger\Facts\SlipSeen;
use VividLedger\Slip\TurnState;

/** Slips from the database, and those they can be passed on to. */
final readonly class StoredSlips implements SlipFacts
{
    public function __construct(private \DateTimeImmutable $at, private \DateTimeZone $zone)
    {
    }

    public function slipOn(string $type, int $id): ?SlipSeen
    {
        $latest = StoredSlip::query()->with('turns')->where('record_type', $type)->where('record_id', $id)->latest('id')->first();

        return $latest === null ? null : new SlipSeen($latest->status->value, $latest->turns->last()->name ?? '', $latest->said ?? []);
    }

    public function candidates(Candidates $candidates, array $except): ?int
    {
        $where = $candidates->where;
        $rows = Matching::query($candidates->type, $where instanceof Condition ? $where : null, $this->at, $this->zone);
        if ($except !== []) {
            $rows->whereNotIn('t.id', $except);
        }
        if ($candidates->mostOpen !== null) {
            $busy = SlipTurnRow::rows()->select('candidate_id')->where('candidate_type', $candidates->type)
                ->where('state', TurnState::Waiting->value)->groupBy('candidate_id')->havingRaw('COUNT(*) >= ?', [$candidates->mostOpen]);
            $rows->whereNotIn('t.id', $busy);
        }
        if ($candidates->by !== null) {
            $rows->orderByRaw("t.`{$candidates->by}` IS NULL")->orderBy("t.{$candidates->by}", $candidates->down ? 'desc' : 'asc');
        }

        return Columns::ints($rows->orderBy('t.id')->limit(1)->pluck('t.id'))[0] ?? null;
    }
}
