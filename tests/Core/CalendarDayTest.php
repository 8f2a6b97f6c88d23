<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Rule\Value\DaySlot;
use VividLedger\Text\RuleText;

/** A date is set to a day that the calendar knows by another. */
final class CalendarDayTest extends TestCase
{
    /** @return iterable<string, array{string, string, string}> which day, counted from when, and what it is */
    public static function days(): iterable
    {
        yield 'a Friday is followed by a Monday' => ['working_day', '2026-11-27', '2026-11-30'];
        yield 'the next of a weekday is never the day itself' => ['friday', '2026-11-27', '2026-12-04'];
        yield 'the next Monday' => ['monday', '2026-11-27', '2026-11-30'];
        yield 'the end of a leap February' => ['month_end', '2028-02-03', '2028-02-29'];
        yield 'the end of a month is its own' => ['month_end', '2026-11-30', '2026-11-30'];
        yield 'the month ends on a Sunday' => ['month_end_working', '2027-01-05', '2027-01-29'];
        yield 'from the 31st into a short month' => ['next_month', '2027-01-31', '2027-02-01'];
        yield 'the next month begins on a Sunday' => ['next_month_working', '2026-10-31', '2026-11-02'];
        yield 'the first Monday' => ['next_month_monday', '2026-11-30', '2026-12-07'];
        yield 'a quarter' => ['quarter_end', '2026-11-05', '2026-12-31'];
        yield 'the last day of a quarter' => ['quarter_end', '2026-06-30', '2026-06-30'];
        yield 'a year' => ['year_end', '2026-11-30', '2026-12-31'];
    }

    #[DataProvider('days')]
    public function test_the_day_is_the_one_the_calendar_says(string $day, string $from, string $expected): void
    {
        $world = new World;
        $set = World::set('due', ['kind' => 'calendar_day', 'day' => $day, 'from' => 'itself']);
        $decision = $world->decide([$world->rule(['lines' => [$set]])], null, World::ticket(['due' => $from]));
        self::assertSame($expected, $decision->after?->value('due'));
    }

    public function test_the_time_of_day_stays_what_it_is_on_the_clock(): void
    {
        $world = new World;
        $set = World::set('since', ['kind' => 'calendar_day', 'day' => 'month_end', 'from' => 'itself']);
        $decision = $world->decide([$world->rule(['lines' => [$set]])], null, World::ticket(['since' => '2026-10-20T07:00:00Z']));
        self::assertSame('2026-10-31T08:00:00Z', $decision->after?->value('since'), 'summer time has ended meanwhile');
    }

    public function test_each_is_offered_said_and_understood(): void
    {
        $world = new World;
        $text = new RuleText(World::schema(), $world, $world->zone());
        foreach (DaySlot::DAYS as $day) {
            $line = World::set('due', ['kind' => 'calendar_day', 'day' => $day, 'from' => 'created_at']);
            $printed = $text->printPart($line, 'line', World::schema()->types['ticket']);
            self::assertEquals($line, $text->parseLine($printed, World::schema()->types['ticket'])->file, $printed);
        }
        $typed = $text->parseLine('roll Due to the next working day', World::schema()->types['ticket']);
        self::assertEquals(World::set('due', ['kind' => 'calendar_day', 'day' => 'working_day', 'from' => 'itself']), $typed->file);
        $empty = $world->read(['lines' => [World::set('due', ['kind' => 'calendar_day', 'day' => 'some_day'])]] + World::file());
        self::assertSame('/lines/0/set/0/to/day', $empty->problems[0]->at ?? '');
    }
}
