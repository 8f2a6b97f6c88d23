<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Models\Columns;
use App\Models\Library\StoredCalendar;
use App\Models\Setup\CompanySettings;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\Access\AccessScope;
use App\Store\Library\CalendarStore;

/** What is pencilled in for the days to come, counted. */
final readonly class DaysAhead
{
    private const DAYS = 14;

    /** How the chart sorts lines. */
    private const KINDS = [
        'send_message' => 'message', 'send_list' => 'message', 'task_due' => 'task', 'give_task' => 'task', 'give_tasks' => 'task',
        'remind' => 'reminder', 'escalate' => 'escalation',
    ];

    public function __construct(private CalendarStore $calendars, private AccessScope $inSight, private OwnLines $own)
    {
    }

    /**
     * @param  ?int  $person  whose own it has to be; null for all that whoever asks may see
     * @return list<DayResource> by the day on which it falls due
     */
    public function from(\DateTimeImmutable $midnight, ?int $person = null): array
    {
        $zone = $midnight->getTimezone();
        $end = $midnight->modify('+'.self::DAYS.' days');
        $due = [];
        // Counted by the minute, the smallest step in which zones differ.
        $lines = $this->inSight->about(ScheduledLine::rows());
        $counted = ($person === null ? $lines : $this->own->of($person, $lines))->where('status', LineStatus::Pencilled)
            ->where('due_at', '>=', Columns::moment($midnight))
            ->where('due_at', '<', Columns::moment($end))->groupBy('kind', 'minute')->selectRaw(
                'kind, LEFT(due_at, 16) AS minute, COUNT(*) AS n',
            );
        foreach ($counted->get() as $row) {
            $day = Columns::instant("{$row->minute}:00")->setTimezone($zone)->format('Y-m-d');
            $kind = self::KINDS[$row->kind] ?? 'other';
            $due[$day][$kind] = ($due[$day][$kind] ?? 0) + (int) $row->n;
        }
        $calendar = $this->calendars->calendar(null);
        $own = CompanySettings::query()->whereKey(CompanySettings::ID)->value('calendar_id');
        $holidays = StoredCalendar::query()->find($own)->holidays ?? [];
        $days = [];
        for ($day = $midnight; $day < $end; $day = $day->modify('+1 day')) {
            $date = $day->format('Y-m-d');
            $days[] = new DayResource($date, $due[$date] ?? [], ! $calendar->isWorkingDay($day, $zone), (string) ($holidays[$date] ?? ''));
        }

        return $days;
    }
}
