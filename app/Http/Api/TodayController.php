<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\TodayShape;
use App\Models\TaskStatus;
use App\Store\Company;
use App\Store\HouseClock;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use VividLedger\Rights\Duty;
use VividLedger\Rule\RuleStatus;

/** The first screen. */
final class TodayController extends Controller
{
    private const TASKS = 12;

    private const ENTRIES = 8;

    #[
        OA\Get(
            path: '/api/today',
            operationId: 'today',
            description: 'What a person begins the day with: their tasks, what is due, and what rules have done.',
            tags: ['today'],
            responses: [new Ok(TodayShape::class)],
        ),
    ]
    public function show(
        Request $request, Company $company, HouseClock $clock, Tasks $tasks, RuleShapes $rules, Entries $entries, DaysAhead $days,
        SignOffLoads $signOffs,
    ): TodayShape {
        $person = $this->person($request);
        // Whoever looks after other people's tasks sees what wants anybody.
        $whose = $person->may(Duty::DoAllTasks) ? null : $person->id;
        $midnight = $clock->now()->setTimezone($company->zone())->setTime(0, 0);
        [$late, $today] = $tasks->pressing($whose, $clock->now(), $midnight->modify('+1 day'));

        return new TodayShape(
            $tasks->listed(TaskStatus::Open, $whose, self::TASKS), $late, $today, $rules->all(RuleStatus::InForce),
            $person->may(Duty::SeeLedger) ? $entries->latest(self::ENTRIES, $person->may(Duty::SeeDoors)) : [], $days->from($midnight),
            $signOffs->for($person),
        );
    }
}
