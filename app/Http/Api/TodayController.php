<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\DayShape;
use App\Http\Api\Shape\TodayShape;
use App\Store\CalendarStore;
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

    /** How the chart sorts lines. */
    private const KINDS = [
        'send_message' => 'message', 'send_list' => 'message', 'task_due' => 'task', 'give_task' => 'task', 'give_tasks' => 'task', 'remind' => 'reminder', 'escalate' => 'escalation',
    ];

    #[
        OA\Get(
            path: '/api/today',
            operationId: 'today',
            description: 'What a person begins the day with: their tasks, what is due, and what rules have done.',
            tags: ['today'],
            responses: [new Ok(TodayShape::class)],
        ),
    ]
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

    /** @return list<DayShape> what is pencilled in by the day it falls due, from today */
    private function days(Connection $db, \DateTimeImmutable $midnight, \DateTimeZone $zone): array
    {
        $end = $midnight->modify('+'.self::DAYS_AHEAD.' days');
        $due = [];
        foreach ($db->select("SELECT kind, LEFT(due_at, 16) AS minute, COUNT(*) AS n FROM scheduled_lines WHERE status = 'pencilled' AND due_at >= ? AND due_at < ? GROUP BY kind, minute", [Columns::moment($midnight), Columns::moment($end)]) as $row) {
            $day = (new \DateTimeImmutable("{$row->minute}:00Z"))->setTimezone($zone)->format('Y-m-d');
            $kind = self::KINDS[$row->kind] ?? 'other';
            $due[$day][$kind] = ($due[$day][$kind] ?? 0) + (int) $row->n;
        }
        $calendar = (new CalendarStore($db))->calendar(null);
        $holidays = json_decode((string) ($db->scalar('SELECT c.holidays FROM company y JOIN calendars c ON c.id = y.calendar_id') ?? '{}'), true, 8, JSON_THROW_ON_ERROR);
        $days = [];
        for ($day = $midnight; $day < $end; $day = $day->modify('+1 day')) {
            $date = $day->format('Y-m-d');
            $days[] = new DayShape($date, $due[$date] ?? [], ! $calendar->isWorkingDay($day, $zone), (string) ($holidays[$date] ?? ''));
        }

        return $days;
    }
}
