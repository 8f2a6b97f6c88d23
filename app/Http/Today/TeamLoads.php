<?php

declare(strict_types=1);

namespace App\Http\Today;

use App\Http\Tasks\Tasks;
use App\Models\Columns;
use App\Models\People\Absence;
use App\Models\People\AbsenceState;
use App\Models\People\Person;
use App\Models\SignOffs\SignOffSeat;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use VividLedger\Record\Value;
use VividLedger\SignOff\SeatState;

/** Reckons how much each of some people has to do. */
final readonly class TeamLoads
{
    public function __construct(private Tasks $tasks)
    {
    }

    /**
     * Everybody at work who reports to a person, directly or through others.
     *
     * @return list<int> their ids
     */
    public function reportingTo(int $person): array
    {
        $below = [];
        $ids = [$person];
        while ($ids !== []) {
            $ids = array_values(array_diff(
                Columns::ints(Person::query()->whereIn('manager_id', $ids)->where('active', true)->pluck('id')),
                $below,
                [$person],
            ));
            array_push($below, ...$ids);
        }

        return $below;
    }

    /**
     * @param  list<int>  $people
     * @return list<LoadResource> those with the most that is late first
     */
    public function of(array $people, \DateTimeImmutable $now, \DateTimeImmutable $midnight): array
    {
        $tasks = Task::query()->where('status', TaskStatus::Open)->whereIn('assignee_id', $people)->where($this->tasks->seen(...))
            ->groupBy('assignee_id')->toBase()->selectRaw(
                'assignee_id, COUNT(*) AS open, SUM(due_at < ?) AS late, SUM(due_at >= ? AND due_at < ?) AS today',
                [Columns::moment($now), Columns::moment($now), Columns::moment($midnight)],
            )->get()->keyBy('assignee_id');
        $seats = SignOffSeat::rows()->where('state', SeatState::Waiting)->whereIn('person_id', $people)->groupBy('person_id')
            ->selectRaw('person_id, COUNT(*) AS n')->pluck('n', 'person_id');
        $away = Absence::query()->where('state', AbsenceState::Begun)->whereIn('person_id', $people)->get()->keyBy('person_id');
        $loads = [];
        foreach (Person::query()->whereKey($people)->orderBy('name')->get() as $person) {
            $of = $tasks[$person->id] ?? null;
            $until = $away[$person->id]->ends_at ?? null;
            $loads[] = new LoadResource(
                id: $person->id, name: $person->name, team: $person->team, awayUntil: $until === null ? null : Value::instantText($until),
                open: (int) ($of->open ?? 0), late: (int) ($of->late ?? 0), dueToday: (int) ($of->today ?? 0),
                signOffs: (int) ($seats[$person->id] ?? 0),
            );
        }
        usort($loads, static fn (LoadResource $one, LoadResource $other): int => [$other->late, $other->open] <=> [$one->late, $one->open]);

        return $loads;
    }
}
