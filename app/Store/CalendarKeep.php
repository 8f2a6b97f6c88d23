<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use Sabre\VObject\ParseException;
use Sabre\VObject\Reader;
use VividLedger\Time\InvalidCalendar;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;

/** Keeps working calendars, and who goes by which. */
final readonly class CalendarKeep
{
    private const NAME_LENGTH = 60;

    private const MOST_HOLIDAYS = 2000;

    public function __construct(private Connection $db)
    {
    }

    /**
     * @param  ?int  $id  null for a new one
     * @param  ?int  $version  as the person saw it
     * @param  array<mixed>  $hours  spans by ISO weekday
     * @param  array<mixed>  $holidays  names by date
     * @param  list<string>  $teams  that go by it
     * @param  list<int>  $people  who go by it
     *
     * @throws Refused with the problem at its place
     */
    public function keep(?int $id, ?int $version, string $name, string $zone, array $hours, array $holidays, bool $company, array $teams, array $people): int
    {
        $name = trim($name);
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            throw self::refused('/name', $name === '' ? 'Give the calendar a name.' : 'A name has at most '.self::NAME_LENGTH.' characters.');
        }
        try {
            $timeZone = new \DateTimeZone($zone);
        } catch (\Exception|\ValueError) {
            throw self::refused('/timeZone', "There is no time zone ‘{$zone}’. Choose one such as Europe/Berlin.");
        }
        if (count($holidays) > self::MOST_HOLIDAYS) {
            throw self::refused('/holidays', 'A calendar has at most '.number_format(self::MOST_HOLIDAYS).' holidays.');
        }
        ksort($holidays);
        $week = array_filter($hours);
        try {
            $working = WorkingHours::of($week, []);
        } catch (InvalidCalendar $invalid) {
            throw self::refused('/hours', $invalid->getMessage());
        }
        try {
            $working = WorkingHours::of($week, array_map(strval(...), array_keys($holidays)));
            (new WorkingCalendar($working, $timeZone))->addDays(new \DateTimeImmutable('@0'), 1, $timeZone);
        } catch (InvalidCalendar $invalid) {
            throw self::refused('/holidays', $invalid->getMessage());
        }
        $row = [
            'name' => $name, 'time_zone' => $timeZone->getName(), 'hours' => json_encode((object) $week, JSON_THROW_ON_ERROR),
            'holidays' => json_encode((object) array_map(static fn (mixed $said): string => is_string($said) ? mb_substr($said, 0, 120) : '', $holidays), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        ];

        return $this->db->transaction(function () use ($id, $version, $row, $company, $teams, $people): int {
            $taken = $this->db->scalar('SELECT id FROM calendars WHERE name = ? FOR UPDATE', [$row['name']]);
            if ($taken !== null && (int) $taken !== $id) {
                throw new Refused('name_taken', 'There is a calendar of that name already.', 409, [['at' => '/name', 'code' => 'name_taken', 'message' => 'There is a calendar of that name already.']]);
            }
            if ($id === null) {
                [$id] = Batch::insertForIds($this->db, 'calendars', [$row]);
            } else {
                $before = $this->db->selectOne('SELECT version FROM calendars WHERE id = ? FOR UPDATE', [$id]) ?? throw new Refused('not_found', 'This calendar is gone.', 404);
                if ($version !== null && (int) $before->version !== $version) {
                    throw new Refused('stale_version', 'Somebody changed this calendar after you opened it. Open it again to see it as it is now.', 409);
                }
                $this->db->table('calendars')->where('id', $id)->update($row + ['version' => (int) $before->version + 1]);
            }
            $this->assign($id, $company, $teams, $people);
            // Conditions that count working days are read anew.
            $this->db->update('UPDATE company SET kept_version = kept_version + 1 WHERE id = 1');

            return $id;
        });
    }

    /** @throws Refused while somebody goes by it */
    public function drop(int $id): void
    {
        $used = (int) $this->db->scalar('SELECT (SELECT COUNT(*) FROM company WHERE calendar_id = ?) + (SELECT COUNT(*) FROM team_calendars WHERE calendar_id = ?) + (SELECT COUNT(*) FROM people WHERE calendar_id = ?)', [$id, $id, $id]);
        if ($used > 0) {
            throw new Refused('in_use', 'Somebody goes by this calendar. Give them another one first.', 409);
        }
        $this->db->delete('DELETE FROM calendars WHERE id = ?', [$id]);
    }

    /**
     * The days of an iCalendar file (RFC 5545): each day that an all-day event covers.
     *
     * @return array<string, string> names by date
     *
     * @throws Refused when it cannot be read
     */
    public function holidays(string $ics): array
    {
        try {
            $calendar = Reader::read($ics, Reader::OPTION_FORGIVING);
        } catch (ParseException|\TypeError) {
            throw self::refused('/text', 'This is not an iCalendar file.');
        }
        $days = [];
        foreach ($calendar->select('VEVENT') as $event) {
            if (! isset($event->DTSTART)) {
                continue;
            }
            try {
                $from = $event->DTSTART->getDateTime();
                $to = isset($event->DTEND) ? $event->DTEND->getDateTime() : $from->modify('+1 day');
            } catch (\Exception) {
                throw self::refused('/text', 'A date in this file cannot be read.');
            }
            for ($day = $from; $day->format('Y-m-d') === $from->format('Y-m-d') || ($day < $to && count($days) < self::MOST_HOLIDAYS); $day = $day->modify('+1 day')) {
                $days[$day->format('Y-m-d')] = mb_substr(trim((string) ($event->SUMMARY ?? '')), 0, 120);
            }
        }
        ksort($days);

        return $days === [] ? throw self::refused('/text', 'There is no event in this file.') : $days;
    }

    /**
     * @param  list<string>  $teams
     * @param  list<int>  $people
     */
    private function assign(int $id, bool $company, array $teams, array $people): void
    {
        $this->db->update('UPDATE company SET calendar_id = IF(?, ?, IF(calendar_id = ?, NULL, calendar_id)) WHERE id = 1', [$company, $id, $id]);
        $this->db->delete('DELETE FROM team_calendars WHERE calendar_id = ?', [$id]);
        Batch::insert($this->db, 'team_calendars', array_map(static fn (string $team): array => ['team' => $team, 'calendar_id' => $id], array_values(array_unique($teams))), ' ON DUPLICATE KEY UPDATE calendar_id = VALUES(calendar_id)');
        $this->db->update('UPDATE people SET calendar_id = NULL WHERE calendar_id = ?', [$id]);
        if ($people !== []) {
            $this->db->update('UPDATE people SET calendar_id = ? WHERE id IN ('.implode(', ', array_map(intval(...), $people)).')', [$id]);
        }
    }

    private static function refused(string $at, string $message): Refused
    {
        return new Refused('invalid_values', $message, 422, [['at' => $at, 'code' => 'invalid_value', 'message' => $message]]);
    }
}
