<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\Time\Amount;
use VividLedger\Time\Due;
use VividLedger\Time\InvalidCalendar;
use VividLedger\Time\Roll;
use VividLedger\Time\Unit;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;
use VividLedger\Time\WorkingWeek;

/** Working time agrees with a slow reference, case by case, and with itself. */
final class WorkingTimeTest extends TestCase
{
    /** @return array<string, WorkingCalendar> */
    private static function calendars(): array
    {
        $calendars = [];
        foreach (json_decode((string) file_get_contents(__DIR__.'/calendars.json'), true, 16, JSON_THROW_ON_ERROR) as $name => $calendar) {
            $calendars[$name] = new WorkingCalendar(
                WorkingHours::of($calendar['hours'], $calendar['holidays']),
                new \DateTimeZone($calendar['zone']),
            );
        }

        return $calendars;
    }

    public function test_every_case_of_the_reference(): void
    {
        $calendars = self::calendars();
        foreach (file(__DIR__.'/due.jsonl', FILE_IGNORE_NEW_LINES) ?: [] as $number => $line) {
            $case = json_decode($line, true, 8, JSON_THROW_ON_ERROR);
            $zone = new \DateTimeZone($case['zone']);
            $calendar = $calendars[$case['calendar']];
            $base = new \DateTimeImmutable($case['base']);
            $due = (new Due(new Amount($case['amount'], Unit::from($case['unit'])), $case['roll'] === null ? null
                : Roll::from($case['roll']), $case['at']))->from($base, $zone, $calendar);
            self::assertSame((new \DateTimeImmutable($case['due']))->format('U'), $due->format('U'), 'line '.($number + 1).": {$line}");
        }
    }

    public function test_today_and_this_week_end_as_the_calendar_has_it(): void
    {
        $random = new Randomizer(new Mt19937(17));
        foreach (self::calendars() as $name => $calendar) {
            for ($count = 0; $count < 80; $count++) {
                $now = new \DateTimeImmutable('@'.$random->getInt(1_760_000_000, 1_830_000_000));
                $week = WorkingWeek::at($now, $calendar);
                $said = "{$name}, {$now->format('c')}";
                self::assertGreaterThan($now, $week->todayEnds, $said);
                self::assertGreaterThanOrEqual($week->todayEnds, $week->weekEnds, $said);
                self::assertTrue($calendar->isWorkingDay($week->weekEnds->modify('-1 hour'), $calendar->zone), "{$said}: its last day");
                self::assertSame('00:00', $week->weekEnds->setTimezone($calendar->zone)->format('H:i'), $said);
                // What is put into a group stands in that group.
                self::assertTrue($now < $week->dueToday && $week->dueToday < $week->todayEnds, $said);
                self::assertLessThan($week->weekEnds, $week->dueThisWeek, $said);
                self::assertGreaterThan($week->weekEnds, $week->dueNextWeek, $said);
                // After the last working day of the week nobody works until Monday.
                $sunday = $week->weekEnds->modify('-1 hour')->setTimezone($calendar->zone)->modify('monday next week');
                self::assertSame(0, $calendar->between($week->weekEnds, $sunday), $said);
            }
        }
    }

    public function test_a_day_ends_when_nobody_works_on_it_any_more(): void
    {
        $random = new Randomizer(new Mt19937(23));
        foreach (self::calendars() as $name => $calendar) {
            for ($count = 0; $count < 80; $count++) {
                $now = (new \DateTimeImmutable('@'.$random->getInt(1_760_000_000, 1_830_000_000)))->setTimezone($calendar->zone);
                $end = $calendar->endOfDay($now);
                $said = "{$name}, {$now->format('c')}";
                self::assertSame($calendar->isWorkingDay($now, $calendar->zone), $end !== null, $said);
                if ($end !== null) {
                    [$midnight, $last] = [$now->modify('tomorrow'), $end->modify('-1 second')->setTimezone($calendar->zone)];
                    self::assertSame($now->format('Y-m-d'), $last->format('Y-m-d'), $said);
                    self::assertSame(60, $calendar->between($end->modify('-1 minute'), $end), "{$said}: worked up to then");
                    self::assertSame(0, $end < $midnight ? $calendar->between($end, $midnight) : 0, "{$said}: and no longer");
                }
            }
        }
    }

    public function test_hours_that_make_no_sense_are_refused(): void
    {
        foreach ([
            'no hours' => [[], []],
            'days without any' => [['1' => []], []],
            'an eighth day' => [['8' => [['09:00', '17:00']]], []],
            'none of a span' => [['1' => [['09:00', '09:00']]], []],
            'backwards' => [['1' => [['17:00', '09:00']]], []],
            'one into another' => [['1' => [['09:00', '12:00'], ['11:59', '17:00']]], []],
            'a later hour than there is' => [['1' => [['09:00', '24:01']]], []],
            'no span' => [['1' => ['09:00']], []],
            'no day' => [['1' => [['09:00', '17:00']]], ['2026-02-30']],
        ] as $name => [$hours, $holidays]) {
            try {
                WorkingHours::of($hours, $holidays);
                self::fail("{$name} was taken.");
            } catch (InvalidCalendar) {
                self::assertTrue(true);
            }
        }
        $touching = WorkingHours::of(['1' => [['00:00', '12:00'], ['12:00', '24:00']]], ['2026-11-30']);
        self::assertSame([[0, 720], [720, 1440]], $touching->on(20780), 'a Monday');
        self::assertSame([], $touching->on(20787), 'a holiday');
    }

    public function test_a_friday_before_a_holiday_week_and_a_weekend(): void
    {
        $calendar = new WorkingCalendar(WorkingHours::of(
            array_fill_keys([1, 2, 3, 4, 5], [['09:00', '17:30']]), ['2026-12-24', '2026-12-25'],
        ), new \DateTimeZone('Europe/Berlin'));
        $said = static function (string $now) use ($calendar): array {
            $week = WorkingWeek::at(new \DateTimeImmutable($now), $calendar);

            return array_map(
                static fn (\DateTimeImmutable $at): string => $at->setTimezone($calendar->zone)->format('D j H:i'),
                [$week->weekEnds, $week->dueToday, $week->dueThisWeek, $week->dueNextWeek],
            );
        };
        self::assertSame(['Thu 24 00:00', 'Mon 21 17:30', 'Wed 23 17:30', 'Fri 1 17:30'], $said('2026-12-21T08:00:00Z'));
        self::assertSame(['Sat 5 00:00', 'Sat 28 23:59', 'Fri 4 17:30', 'Fri 11 17:30'], $said('2026-11-28T12:00:00Z'), 'on a Saturday');
        self::assertSame(['Sat 28 00:00', 'Fri 27 23:59', 'Fri 27 17:30', 'Fri 4 17:30'], $said('2026-11-27T20:00:00Z'), 'in the evening');
    }

    public function test_additions_add_up_and_work_between_is_what_was_added(): void
    {
        $random = new Randomizer(new Mt19937(5));
        foreach (self::calendars() as $name => $calendar) {
            for ($count = 0; $count < 60; $count++) {
                $base = new \DateTimeImmutable('@'.$random->getInt(1_760_000_000, 1_830_000_000));
                [$one, $two] = [$random->getInt(1, 400_000), $random->getInt(1, 400_000)];
                $there = $calendar->add($base, $one + $two);
                self::assertEquals($there, $calendar->add($calendar->add($base, $one), $two), $name);
                self::assertSame($one + $two, $calendar->between($base, $there), $name);
                self::assertSame($one, $calendar->between($calendar->add($there, -$one), $there), $name);
                // A calendar that was asked in another order lays out other years first, and answers the same.
                $fresh = self::calendars()[$name];
                $fresh->add(new \DateTimeImmutable('@'.$random->getInt(1_000_000_000, 2_000_000_000)), 1);
                if ($count % 20 === 0) {
                    self::assertEquals($there, $fresh->add($base, $one + $two), $name);
                }
            }
        }
    }

    /** @return iterable<string, array{array<mixed>, list<mixed>}> */
    public static function wrong(): iterable
    {
        yield 'no hours' => [[], []];
        yield 'no hours on any day' => [['1' => []], []];
        yield 'a weekday too many' => [['8' => [['08:00', '09:00']]], []];
        yield 'an end before the start' => [['1' => [['09:00', '08:00']]], []];
        yield 'spans that overlap' => [['1' => [['08:00', '10:00'], ['09:00', '11:00']]], []];
        yield 'a time that does not exist' => [['1' => [['08:00', '24:30']]], []];
        yield 'a holiday that does not exist' => [['1' => [['08:00', '09:00']]], ['2026-02-30']];
    }

    /**
     * @param  array<mixed>  $hours
     * @param  list<mixed>  $holidays
     */
    #[DataProvider('wrong')]
    public function test_a_calendar_that_makes_no_sense_is_refused(array $hours, array $holidays): void
    {
        $this->expectException(InvalidCalendar::class);
        WorkingHours::of($hours, $holidays);
    }
}
