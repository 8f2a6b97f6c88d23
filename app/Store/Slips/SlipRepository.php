<?php

declare(strict_types=1);

namespace App\Store\Slips;

use App\Models\Ledger\Entry;
use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Store\Actor;
use App\Store\HouseClock;
use App\Store\Sql\Batch;
use App\Store\Timing\PastOfLines;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Explain\SlipTold;
use VividLedger\Record\CauseKind;
use VividLedger\Slip\ReplySlip;
use VividLedger\Slip\SlipClerk;
use VividLedger\Slip\SlipEvent;
use VividLedger\Slip\SlipStatus;

/** Keeps slips as they stand, with the entries of what happened to them. */
final readonly class SlipRepository
{
    /** Columns of a turn that change; whose it is stays. */
    private const CHANGING = ['state', 'nudged', 'ended_at'];

    public function __construct(private HouseClock $clock)
    {
    }

    /**
     * @param  ?\DateTimeImmutable  $wakes  when it has to be tended next
     * @param  string  $of  name of the record type of those the list leads to; empty for people
     */
    public function keep(StoredSlip $kept, ReplySlip $slip, ?\DateTimeImmutable $wakes, string $of): void
    {
        $kept->update(['status' => $slip->status, 'chosen' => $slip->chosen, 'ended_at' => $slip->endedAt, 'wakes_at' => $wakes]);
        $rows = [];
        foreach ($slip->turns as $place => $turn) {
            $rows[] = SlipTurnRow::row($kept->id, $place, $turn, $of);
        }
        Batch::insert(SlipTurnRow::class, $rows, self::CHANGING);
        $kept->unsetRelation('turns');
    }

    /**
     * @param  list<SlipEvent>  $events
     * @param  list<array{asked: string, said: string, path?: string}>  $answers  in words
     * @return int number of the entry
     */
    public function entry(StoredSlip $kept, Actor $actor, array $events, array $answers = [], ?int $cause = null): int
    {
        return Batch::insertForIds(Entry::class, [Entry::row('slip', $this->clock->now(), SlipTold::of($events, $answers), [
            'actor_id' => $actor->personId, 'via' => $actor->via, 'record_type' => $kept->record_type, 'record_id' => $kept->record_id,
            'rule_id' => $kept->rule_id, 'page' => $kept->page, 'cause_id' => $cause ?? $kept->entry_id,
        ])])[0];
    }

    /** Ends one that nobody has answered and nobody can any more. */
    public function end(StoredSlip $kept, Actor $actor, ?int $cause = null): int
    {
        $moved = SlipClerk::ended($kept->slip(), SlipStatus::Withdrawn, $this->clock->now());
        $this->keep($kept, $moved->slip, null, '');

        return $this->entry($kept, $actor, $moved->events, cause: $cause);
    }

    /**
     * What was sent before is past when the same line sends once more, and when its run is struck out.
     *
     * @param  list<array{rule_id: int, place: int, record_type: string, record_id: int}>  $sent  by lines, just now
     * @param  list<int>  $struck  ids of runs
     */
    public function withdraw(array $sent, array $struck): void
    {
        $open = static fn (): Builder => StoredSlip::query()->with('turns')->where('status', SlipStatus::Waiting)->lockForUpdate();
        foreach (PastOfLines::among($open, $sent, $struck) as $kept) {
            $this->end($kept, new Actor(null, CauseKind::Rule));
        }
    }

    /** @return int how many of those that an entry sent were still waiting, and are withdrawn */
    public function takeBack(int $entry, Actor $actor): int
    {
        $open = StoredSlip::query()->sentBy([$entry])->with('turns')->lockForUpdate()->get();
        foreach ($open as $kept) {
            $this->end($kept, $actor, $entry);
        }

        return $open->count();
    }

    /** Those of a record that is gone. */
    public function endOf(string $type, int $record, Actor $actor, int $cause): void
    {
        $open = StoredSlip::query()->with('turns')->where('record_type', $type)->where('record_id', $record)
            ->where('status', SlipStatus::Waiting)->lockForUpdate()->get();
        foreach ($open as $kept) {
            $this->end($kept, $actor, $cause);
        }
    }
}
