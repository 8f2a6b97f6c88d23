<?php

declare(strict_types=1);

namespace App\Http\Today;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Http\SignOffs\SignOffLoads;
use App\Http\Tasks\Tasks;
use App\Http\Timing\DaysAhead;
use App\Models\Tasks\TaskStatus;
use App\Store\HouseClock;
use App\Store\Setup\Company;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** The first screen: one's own day, the team of whoever leads one, and the rules of whoever looks after them. */
final class TodayController extends Controller
{
    private const TASKS = 30;

    private const SLIPPING = 12;

    public function __construct(
        private readonly Company $company,
        private readonly HouseClock $clock,
        private readonly Tasks $tasks,
        private readonly TeamLoads $loads,
    ) {
    }

    #[
        OA\Get(
            path: '/api/today',
            operationId: 'today',
            description: 'What a person begins the day with: their tasks, what waits for them, and what is pencilled in.',
            tags: ['today'],
            responses: [new Ok(TodayResource::class)],
        ),
    ]
    public function show(Request $request, DaysAhead $days, SignOffLoads $signOffs): TodayResource
    {
        $person = $this->person($request);
        [$late, $today] = $this->tasks->pressing($person->id, $this->clock->now(), $this->midnight()->modify('+1 day'));

        return new TodayResource(
            tasks: $this->tasks->listed(TaskStatus::Open, $person->id, self::TASKS), late: $late, dueToday: $today,
            days: $days->from($this->midnight(), $person->id), signOffs: $signOffs->for($person),
            team: count($this->loads->reportingTo($person->id)),
        );
    }

    #[
        OA\Get(
            path: '/api/today/team',
            operationId: 'todayTeam',
            description: 'How much everybody has to do who reports to the person, and what of it slips.',
            tags: ['today'],
            responses: [new Ok(TodayTeamResource::class)],
        ),
    ]
    public function team(Request $request): TodayTeamResource
    {
        $people = $this->loads->reportingTo($this->person($request)->id);
        $now = $this->clock->now();

        return new TodayTeamResource(
            $this->loads->of($people, $now, $this->midnight()->modify('+1 day')),
            $this->tasks->late($people, $now, self::SLIPPING),
        );
    }

    #[
        OA\Get(
            path: '/api/today/rules',
            operationId: 'todayRules',
            description: 'What the rules did since yesterday, and what did not go as it should.',
            tags: ['today'],
            responses: [new Ok(TodayRulesResource::class)],
        ),
    ]
    public function rules(RulesToday $rules, DaysAhead $days): TodayRulesResource
    {
        return $rules->resource($this->midnight(), $days->from($this->midnight()));
    }

    private function midnight(): \DateTimeImmutable
    {
        return $this->clock->now()->setTimezone($this->company->zone())->setTime(0, 0);
    }
}
