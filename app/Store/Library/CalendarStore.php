<?php

declare(strict_types=1);

namespace App\Store\Library;

use App\Models\Library\StoredCalendar;
use App\Models\Library\TeamCalendar;
use App\Models\People\Person as PersonRow;
use App\Models\Setup\CompanySettings;
use VividLedger\House\Calendars;
use VividLedger\House\Person;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;

/** The working calendars, and whose is whose. Read once for each transaction; a calendar's layout is kept for the life of the process. */
final class CalendarStore implements Calendars
{
    /** Where nobody has set up a calendar. */
    private const USUAL = [
        '1' => [['09:00', '17:00']], '2' => [['09:00', '17:00']], '3' => [['09:00', '17:00']],
        '4' => [['09:00', '17:00']], '5' => [['09:00', '17:00']],
    ];

    /** @var array<string, WorkingCalendar> by database, id and a sum of the layout */
    private static array $laidOut = [];

    /** @var ?array<string, string> key of a laid-out calendar, by whose it is */
    private ?array $whose = null;

    public function calendar(?Person $person): WorkingCalendar
    {
        $whose = $this->whose ??= $this->read();

        return self::$laidOut[$whose["person:{$person?->id}"] ?? $whose["team:{$person?->team}"] ?? $whose['company:']];
    }

    /** @return array<string, string> */
    private function read(): array
    {
        $company = CompanySettings::query()->find(CompanySettings::ID);
        $given = ['company:' => $company?->calendar_id];
        foreach (TeamCalendar::query()->pluck('calendar_id', 'team') as $team => $calendar) {
            $given["team:{$team}"] = (int) $calendar;
        }
        foreach (PersonRow::query()->whereNotNull('calendar_id')->pluck('calendar_id', 'id') as $person => $calendar) {
            $given["person:{$person}"] = (int) $calendar;
        }
        $given = array_filter($given);
        // A restored backup may give an id and a version out again.
        $versions = $given === [] ? [] : StoredCalendar::query()->whereIn('id', array_unique($given))
            ->selectRaw('id, CRC32(CONCAT(hours, holidays, time_zone)) AS layout')->toBase()->pluck('layout', 'id')->all();
        $database = (string) (new StoredCalendar)->getConnection()->getDatabaseName();
        $whose = [];
        foreach ($given as $who => $id) {
            $whose[$who] = "{$database}:{$id}:{$versions[$id]}";
            self::$laidOut[$whose[$who]] ??= $this->laidOut($id);
        }
        if (! isset($whose['company:'])) {
            $zone = $company->time_zone ?? 'UTC';
            self::$laidOut["usual:{$zone}"] ??= new WorkingCalendar(WorkingHours::of(self::USUAL, []), new \DateTimeZone($zone));
            $whose['company:'] = "usual:{$zone}";
        }

        return $whose;
    }

    private function laidOut(int $id): WorkingCalendar
    {
        $row = StoredCalendar::query()->findOrFail($id);

        return new WorkingCalendar(
            WorkingHours::of($row->hours, array_map(strval(...), array_keys($row->holidays))),
            new \DateTimeZone($row->time_zone),
        );
    }
}
