<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\People\Person;
use VividLedger\Time\Calendars;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;

/** The working calendars, and whose is whose. Read once for each transaction; a calendar's layout is kept for the life of the process. */
final class CalendarStore implements Calendars
{
    /** Where nobody has set up a calendar. */
    private const USUAL = ['1' => [['09:00', '17:00']], '2' => [['09:00', '17:00']], '3' => [['09:00', '17:00']], '4' => [['09:00', '17:00']], '5' => [['09:00', '17:00']]];

    /** @var array<string, WorkingCalendar> by id and version, which says all */
    private static array $laidOut = [];

    /** @var ?array<string, string> key of a laid-out calendar, by whose it is */
    private ?array $whose = null;

    public function __construct(private readonly Connection $db)
    {
    }

    public function calendar(?Person $person): WorkingCalendar
    {
        $whose = $this->whose ??= $this->read();

        return self::$laidOut[$whose["person:{$person?->id}"] ?? $whose["team:{$person?->team}"] ?? $whose['company:']];
    }

    /** @return array<string, string> */
    private function read(): array
    {
        $rows = $this->db->select(
            "SELECT w.kind, w.name, c.id, c.version, y.time_zone FROM (
                SELECT 'company' AS kind, '' AS name, calendar_id FROM company
                UNION ALL SELECT 'team', team, calendar_id FROM team_calendars
                UNION ALL SELECT 'person', id, calendar_id FROM people WHERE calendar_id IS NOT NULL) w
            JOIN company y ON y.id = 1 LEFT JOIN calendars c ON c.id = w.calendar_id",
        );
        $zone = 'UTC';
        $whose = [];
        foreach ($rows as $row) {
            $zone = $row->time_zone;
            if ($row->id !== null) {
                $key = "{$row->id}:{$row->version}";
                self::$laidOut[$key] ??= $this->laidOut((int) $row->id);
                $whose["{$row->kind}:{$row->name}"] = $key;
            }
        }
        if (! isset($whose['company:'])) {
            self::$laidOut["usual:{$zone}"] ??= new WorkingCalendar(WorkingHours::of(self::USUAL, []), new \DateTimeZone($zone));
            $whose['company:'] = "usual:{$zone}";
        }

        return $whose;
    }

    private function laidOut(int $id): WorkingCalendar
    {
        $row = $this->db->selectOne('SELECT * FROM calendars WHERE id = ?', [$id]) ?? throw new \LogicException('A calendar in use is never dropped.');
        $holidays = json_decode($row->holidays, true, 8, JSON_THROW_ON_ERROR);

        return new WorkingCalendar(WorkingHours::of(json_decode($row->hours, true, 8, JSON_THROW_ON_ERROR), array_map(strval(...), array_keys($holidays))), new \DateTimeZone($row->time_zone));
    }
}
