<?php

declare(strict_types=1);

namespace App\Store\Library;

use App\Models\Library\StoredCalendar;
use App\Models\Library\TeamCalendar;
use App\Models\People\Person;
use App\Models\Setup\CompanySettings;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Database\Connection;
use VividLedger\Time\InvalidCalendar;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;
use VividLedger\Words\Words;

/** Keeps working calendars, and who goes by which. */
final readonly class CalendarKeep
{
    private const NAME_LENGTH = 60;

    private const HOLIDAY_LENGTH = 120;

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
     * @throws DomainError with the problem at its place
     */
    public function keep(
        ?int $id,
        ?int $version,
        string $name,
        string $zone,
        array $hours,
        array $holidays,
        bool $company,
        array $teams,
        array $people,
    ): int {
        $name = trim($name);
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            throw self::refused(
                '/name',
                $name === ''
                    ? Words::say('Give the calendar a name.')
                    : Words::say('A name has at most {most} characters.', most: self::NAME_LENGTH),
            );
        }
        try {
            $timeZone = new \DateTimeZone($zone);
        } catch (\Exception) {
            throw self::refused('/timeZone', Words::say('There is no time zone ‘{zone}’. Choose one such as Europe/Berlin.', zone: $zone));
        }
        if (count($holidays) > self::MOST_HOLIDAYS) {
            throw self::refused(
                '/holidays',
                Words::say('A calendar has at most {holidays} holidays.', holidays: Words::figures(self::MOST_HOLIDAYS)),
            );
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
        $said = static fn (mixed $said): string => is_string($said) ? mb_substr($said, 0, self::HOLIDAY_LENGTH) : '';
        $row = [
            'name' => $name, 'time_zone' => $timeZone->getName(), 'hours' => (object) $week,
            'holidays' => (object) array_map($said, $holidays),
        ];

        return $this->db->transaction(function () use ($id, $version, $row, $company, $teams, $people): int {
            $taken = StoredCalendar::query()->where('name', $row['name'])->lockForUpdate()->value('id');
            if ($taken !== null && $taken !== $id) {
                $message = Words::say('There is a calendar of that name already.');
                throw new DomainError(
                    'name_taken',
                    $message,
                    RefusedFor::Conflict,
                    [['at' => '/name', 'code' => 'name_taken', 'message' => $message]],
                );
            }
            if ($id === null) {
                $id = StoredCalendar::query()->create($row)->id;
            } else {
                $before = StoredCalendar::query()->lockForUpdate()->find($id)
                    ?? throw DomainError::missing(Words::say('This calendar is gone.'));
                if ($version !== null && $before->version !== $version) {
                    $message = Words::say('Somebody changed this calendar after you opened it. Open it again to see it as it is now.');
                    throw new DomainError('stale_version', $message, RefusedFor::Conflict);
                }
                $before->update($row + ['version' => $before->version + 1]);
            }
            $this->assign($id, $company, $teams, $people);

            return $id;
        });
    }

    /** @throws DomainError while somebody goes by it */
    public function drop(int $id): void
    {
        $isUsed = CompanySettings::query()->where('calendar_id', $id)->exists() || TeamCalendar::query()->where('calendar_id', $id)
            ->exists()
            || Person::query()->where('calendar_id', $id)->exists();
        if ($isUsed) {
            throw new DomainError('in_use', Words::say('Somebody goes by this calendar. Give them another one first.'),
                RefusedFor::Conflict);
        }
        StoredCalendar::query()->find($id)?->delete();
    }

    /**
     * @param  list<string>  $teams
     * @param  list<int>  $people
     */
    private function assign(int $id, bool $company, array $teams, array $people): void
    {
        $settings = CompanySettings::query()->findOrFail(CompanySettings::ID);
        $keeps = $settings->calendar_id === $id ? null : $settings->calendar_id;
        $settings->update(['calendar_id' => $company ? $id : $keeps]);
        TeamCalendar::query()->where('calendar_id', $id)->delete();
        $rows = array_map(static fn (string $team): array => ['team' => $team, 'calendar_id' => $id], array_values(array_unique($teams)));
        TeamCalendar::query()->upsert($rows, ['team'], ['calendar_id']);
        Person::query()->where('calendar_id', $id)->update(['calendar_id' => null]);
        Person::query()->whereIn('id', $people)->update(['calendar_id' => $id]);
    }

    private static function refused(string $at, string $message): DomainError
    {
        return new DomainError(
            'invalid_values',
            $message,
            RefusedFor::Invalid,
            [['at' => $at, 'code' => 'invalid_value', 'message' => $message]],
        );
    }
}
