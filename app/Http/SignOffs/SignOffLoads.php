<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Today\WaitingPerson;
use App\Models\Columns;
use App\Models\People\Person;
use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use App\Store\HouseClock;
use App\Store\People\PeopleStore;
use VividLedger\Rights\Duty;
use VividLedger\SignOff\SeatState;
use VividLedger\SignOff\SignOffStatus;

/** Reckons how sign-offs stand in the company. */
final readonly class SignOffLoads
{
    private const DAYS = 30;

    private const PEOPLE = 6;

    /** More decisions than this say no more about their middle. */
    private const MOST = 2000;

    public function __construct(private HouseClock $clock, private PeopleStore $names)
    {
    }

    /** Whom others’ sign-offs wait for is told to those who see them all. */
    public function for(Person $me): SignOffLoad
    {
        $mine = SignOffSeat::query()->where('person_id', $me->id)->where('state', SeatState::Waiting)->count();
        if (! $me->may(Duty::WriteRules)) {
            return new SignOffLoad($mine, $mine, null, []);
        }
        $rows = SignOffSeat::rows()->where('state', SeatState::Waiting->value)->groupBy('person_id')->orderBy('since')
            ->selectRaw('person_id, COUNT(*) AS n, MIN(asked_at) AS since')->limit(self::PEOPLE)->get()->values()->all();
        $this->names->rememberPeople(array_values(array_map(static fn (\stdClass $row): int => (int) $row->person_id, $rows)));
        $people = array_map(fn (\stdClass $row): WaitingPerson => new WaitingPerson(
            $this->names->person((int) $row->person_id)->name ?? '', (int) $row->n, (string) Columns::iso($row->since),
        ), $rows);
        $waiting = StoredSignOff::query()->where('status', SignOffStatus::Waiting)->count();

        return new SignOffLoad($mine, $waiting, $this->median(), array_values($people));
    }

    private function median(): ?int
    {
        $from = Columns::moment($this->clock->now()->modify('-'.self::DAYS.' days'));
        $took = SignOffSeat::rows()->whereIn('state', [SeatState::Yes->value, SeatState::No->value])->where('by_itself', false)
            ->where('at', '>=', $from)->latest('id')->limit(self::MOST)->get(['asked_at', 'at'])
            ->map(static fn (\stdClass $seat): int => Columns::instant($seat->at)->getTimestamp()
                - Columns::instant($seat->asked_at)->getTimestamp())->sort()->values();

        return $took->isEmpty() ? null : $took[intdiv($took->count(), 2)];
    }
}
