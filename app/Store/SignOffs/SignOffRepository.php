<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\Ledger\Entry;
use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Actor;
use App\Store\HouseClock;
use App\Store\Sql\Batch;
use App\Store\Timing\PastOfLines;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Explain\SignOffTold;
use VividLedger\Record\CauseKind;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\SignOff;
use VividLedger\SignOff\SignOffEvent;
use VividLedger\SignOff\SignOffEventKind;
use VividLedger\SignOff\SignOffStatus;

/** Keeps sign-offs as they stand, with the entries of what happened to them. */
final readonly class SignOffRepository
{
    /** Columns of a seat that change; whose it is and at which step stays. */
    private const CHANGING = [
        'due_at', 'asked_at', 'round', 'reminded', 'state', 'at', 'comment', 'by_itself', 'for_id', 'held_at', 'talk',
    ];

    public function __construct(private HouseClock $clock)
    {
    }

    /** @param  ?\DateTimeImmutable  $wakes  when it has to be tended next */
    public function keep(StoredSignOff $kept, SignOff $signOff, ?\DateTimeImmutable $wakes): void
    {
        $kept->update(StoredSignOff::standing($signOff, $wakes));
        $rows = [];
        foreach ($signOff->seats as $place => $seat) {
            $rows[] = SignOffSeat::row($kept->id, $place, $seat);
        }
        Batch::insert(SignOffSeat::class, $rows, self::CHANGING);
        $kept->unsetRelation('seats');
    }

    /**
     * @param  list<SignOffEvent>  $events
     * @param  array<string, mixed>  $data  what the entry keeps besides
     * @return int number of the entry
     */
    public function entry(StoredSignOff $kept, Actor $actor, array $events, ?int $cause = null, array $data = []): int
    {
        return Batch::insertForIds(Entry::class, [Entry::row('sign_off', $this->clock->now(), SignOffTold::of($events) + $data, [
            'actor_id' => $actor->personId, 'via' => $actor->via, 'record_type' => $kept->record_type, 'record_id' => $kept->record_id,
            'rule_id' => $kept->rule_id, 'page' => $kept->page, 'cause_id' => $cause ?? $kept->entry_id,
        ])])[0];
    }

    /** Ends one that nobody has decided and nobody can any more; what it locks is released when it is tended. */
    public function end(StoredSignOff $kept, SignOffStatus $status, Actor $actor, ?int $cause = null): int
    {
        $ended = $kept->signOff()->ended($status, $this->clock->now());
        $this->keep($kept, $ended, $kept->hold === Hold::Nothing ? null : $this->clock->now());
        SignOffTasks::over($kept->id, null, $this->clock->now());

        return $this->entry($kept, $actor, [new SignOffEvent(SignOffEventKind::Ended, $ended->step, status: $status)], $cause);
    }

    /**
     * What was asked for before is past when the same line asks once more, and when its run is struck out.
     *
     * @param  list<array{rule_id: int, place: int, record_type: string, record_id: int}>  $asked  by lines, just now
     * @param  list<int>  $struck  ids of runs
     */
    public function withdraw(array $asked, array $struck): void
    {
        $open = static fn (): Builder => StoredSignOff::query()->with('seats')->where('status', SignOffStatus::Waiting)->lockForUpdate();
        foreach (PastOfLines::among($open, $asked, $struck) as $kept) {
            $this->end($kept, SignOffStatus::Withdrawn, new Actor(null, CauseKind::Rule));
        }
    }

    /** @return int how many of those that an entry asked for were still waiting, and are withdrawn */
    public function takeBack(int $entry, Actor $actor): int
    {
        $open = StoredSignOff::query()->askedBy([$entry])->with('seats')->lockForUpdate()->get();
        foreach ($open as $kept) {
            $this->end($kept, SignOffStatus::Withdrawn, $actor, $entry);
        }

        return $open->count();
    }

    /** Those of a record that is gone. */
    public function endOf(string $type, int $record, Actor $actor, int $cause): void
    {
        $open = StoredSignOff::query()->with('seats')->where('record_type', $type)->where('record_id', $record)
            ->where('status', SignOffStatus::Waiting)->lockForUpdate()->get();
        foreach ($open as $kept) {
            $this->end($kept, SignOffStatus::Stopped, $actor, $cause);
        }
    }
}
