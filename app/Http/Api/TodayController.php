<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\DayShape;
use App\Http\Api\Shape\TodayShape;
use App\Store\Columns;
use App\Store\Company;
use App\Work\HouseClock;
use Illuminate\Database\Connection;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** The first screen. */
final class TodayController extends Controller
{
    private const DAYS_AHEAD = 14;

    #[OA\Get(path: '/api/today', operationId: 'today', tags: ['today'], responses: [new Ok(TodayShape::class)])]
    public function show(Request $request, Connection $db, Company $company, HouseClock $clock, Tasks $tasks, RuleShapes $rules, Entries $entries): TodayShape
    {
        $person = $this->person($request);
        // Whoever looks after other people's tasks sees what wants anybody.
        $whose = $person->role->mayDoAllTasks() ? null : $person->id;
        $zone = $company->zone();
        $now = $clock->now();
        $midnight = $now->setTimezone($zone)->setTime(0, 0);
        $late = (int) $db->scalar("SELECT COUNT(*) FROM tasks WHERE status = 'open' AND (? IS NULL OR assignee_id = ?) AND due_at < ?", [$whose, $whose, Columns::moment($now)]);
        $today = (int) $db->scalar("SELECT COUNT(*) FROM tasks WHERE status = 'open' AND (? IS NULL OR assignee_id = ?) AND due_at >= ? AND due_at < ?", [$whose, $whose, Columns::moment($now), Columns::moment($midnight->modify('+1 day'))]);

        return new TodayShape(
            $tasks->listed('open', $whose, 12), $late, $today, $rules->all('in_force'), $entries->read("e.kind <> 'changed' AND e.kind <> 'created'", [], 8), $this->days($db, $midnight, $zone),
        );
    }

    /** @return list<DayShape> tasks of everybody by the day they fall due, from today */
    private function days(Connection $db, \DateTimeImmutable $midnight, \DateTimeZone $zone): array
    {
        $end = $midnight->modify('+'.self::DAYS_AHEAD.' days');
        $due = [];
        foreach ($db->select("SELECT due_at FROM tasks WHERE status = 'open' AND due_at >= ? AND due_at < ?", [Columns::moment($midnight), Columns::moment($end)]) as $row) {
            $day = (new \DateTimeImmutable($row->due_at.'Z'))->setTimezone($zone)->format('Y-m-d');
            $due[$day] = ($due[$day] ?? 0) + 1;
        }
        $days = [];
        for ($day = $midnight; $day < $end; $day = $day->modify('+1 day')) {
            $days[] = new DayShape($day->format('Y-m-d'), $due[$day->format('Y-m-d')] ?? 0, (int) $day->format('N') > 5);
        }

        return $days;
    }
}
