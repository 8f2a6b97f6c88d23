<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Sabre\VObject\Recur\RRuleIterator;
use VividLedger\Time\InvalidTimetable;
use VividLedger\Time\Timetable;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;

/** Timetables against a library for recurrence rules, in words, and with all that never ends. */
final class TimetableTest extends TestCase
{
    public function test_random_rules_come_round_as_the_library_says(): void
    {
        mt_srand(20_261_127);
        $utc = new \DateTimeZone('UTC');
        $calendar = new WorkingCalendar(WorkingHours::of(['1' => [['09:00', '17:00']]], []), $utc);
        $taken = 0;
        for ($case = 0; $case < 400; $case++) {
            $from = sprintf('%d-%02d-%02d', mt_rand(2024, 2027), mt_rand(1, 12), mt_rand(1, 28));
            $rule = self::rule();
            try {
                $timetable = Timetable::of($rule, '07:15', $from, false);
            } catch (InvalidTimetable) {
                continue;
            }
            $taken++;
            $expected = [];
            $iterator = new RRuleIterator($rule, new \DateTimeImmutable("{$from} 07:15", $utc));
            for ($steps = 0; $iterator->valid() && count($expected) < 12 && $steps < 60; $steps++, $iterator->next()) {
                $day = $iterator->current()?->format('Y-m-d') ?? '';
                // The library counts its first days whether or not they fit; the rule does not.
                if ($day !== '' && self::fits($rule, $day)) {
                    $expected[] = $day;
                }
            }
            $at = new \DateTimeImmutable("{$from} 00:00", $utc);
            $found = [];
            while (count($found) < count($expected) && ($at = $timetable->next($at, $utc, $calendar)) !== null) {
                $found[] = $at->format('Y-m-d');
            }
            if (! str_contains($rule, 'COUNT') || self::fits($rule, $from)) {
                self::assertSame($expected, $found, "{$rule} from {$from}");
            }
        }
        self::assertGreaterThan(200, $taken);
    }

    /** @return iterable<string, array{string, string}> */
    public static function words(): iterable
    {
        yield 'weekdays' => ['FREQ=WEEKLY;BYDAY=MO,FR', 'every Monday and Friday at 08:00'];
        yield 'interval' => ['FREQ=WEEKLY;INTERVAL=2', 'every 2 weeks on Tuesday at 08:00'];
        yield 'count' => ['FREQ=DAILY;COUNT=10', 'every day at 08:00, 10 times'];
        yield 'until' => ['FREQ=DAILY;UNTIL=20271231', 'every day at 08:00, until 2027-12-31'];
        yield 'months' => ['FREQ=MONTHLY;BYMONTHDAY=15;BYMONTH=3,6', 'every month on day 15, only in March and June at 08:00'];
        yield 'nth' => ['FREQ=MONTHLY;BYDAY=-1FR', 'every month on the last Friday at 08:00'];
        yield 'second to last' => ['FREQ=MONTHLY;BYDAY=-2FR', 'every month on the second to last Friday at 08:00'];
        yield 'by its first day' => ['FREQ=MONTHLY', 'every month on day 24 at 08:00'];
        yield 'yearly' => ['FREQ=YEARLY', 'every year on 24 November at 08:00'];
        yield 'yearly in months' => ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29;COUNT=2', 'every year on day 29 of February at 08:00, 2 times'];
    }

    #[DataProvider('words')]
    public function test_it_reads_aloud_all_that_it_does(string $rule, string $said): void
    {
        self::assertSame($said, Timetable::of($rule, '08:00', '2026-11-24', false)->said());
    }

    /** @return iterable<array{string}> */
    public static function refused(): iterable
    {
        foreach (['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', 'FREQ=DAILY;INTERVAL=7;BYDAY=WE',
            'FREQ=MONTHLY;INTERVAL=12;BYMONTH=3;BYMONTHDAY=1', 'FREQ=YEARLY;INTERVAL=2;BYMONTH=2;BYMONTHDAY=29;UNTIL=20270101',
            'FREQ=WEEKLY;WKST=SU', 'FREQ=YEARLY;BYDAY=20MO', 'FREQ=MONTHLY;BYMONTHDAY=31', 'FREQ=DAILY;COUNT=0',
            'FREQ=DAILY;UNTIL=20200101', 'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13', 'FREQ=HOURLY', '', 'FREQ=DAILY;FREQ=DAILY'] as $rule) {
            yield [$rule];
        }
    }

    #[DataProvider('refused')]
    public function test_what_never_comes_or_has_no_words_is_refused_at_once(string $rule): void
    {
        $this->expectException(InvalidTimetable::class);
        Timetable::of($rule, '08:00', '2026-11-24', false);
    }

    public function test_the_latest_of_many_rounds_is_found_from_the_end(): void
    {
        $zone = new \DateTimeZone('Europe/Berlin');
        $calendar = new WorkingCalendar(WorkingHours::of(['1' => [['09:00', '17:00']]], ['2026-11-23']), $zone);
        $of = static fn (bool $working): ?string => Timetable::of('FREQ=DAILY', '08:00', '2020-01-01', $working)->last(
            new \DateTimeImmutable('2020-01-01T00:00Z'),
            new \DateTimeImmutable('2026-11-24T06:00Z'),
            $zone,
            $calendar,
        )?->format('Y-m-d\TH:i');

        self::assertSame(['2026-11-23T07:00', '2026-11-16T07:00'], [$of(false), $of(true)]);
    }

    private static function rule(): string
    {
        $one = static fn (array $of): string => (string) $of[mt_rand(0, count($of) - 1)];
        $freq = $one(['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY']);
        $rule = "FREQ={$freq}".(mt_rand(0, 1) ? ';INTERVAL='.mt_rand(2, 4) : '');
        $day = $one(['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']);
        $rule .= match ($freq) {
            'WEEKLY' => mt_rand(0, 1) ? ";BYDAY={$day}" : '',
            'MONTHLY' => $one(['', ';BYMONTHDAY='.mt_rand(1, 28), ';BYMONTHDAY=-'.mt_rand(1, 3), ';BYDAY='.$one(['1', '2', '-1']).$day]),
            'YEARLY' => mt_rand(0, 1) ? ';BYMONTH='.mt_rand(1, 12).';BYMONTHDAY='.mt_rand(1, 28) : '',
            default => '',
        };

        return $rule.(mt_rand(0, 3) === 0 ? ';COUNT='.mt_rand(1, 9) : '');
    }

    private static function fits(string $rule, string $from): bool
    {
        $day = new \DateTimeImmutable("{$from}T00:00:00Z");
        parse_str(str_replace(';', '&', $rule), $parts);
        $date = (int) $day->format('j');
        $nth = isset($parts['BYDAY']) && preg_match('/^(-?\d)?(\w\w)$/', (string) $parts['BYDAY'], $found) === 1 ? $found : null;

        return (! isset($parts['BYMONTH']) || (int) $parts['BYMONTH'] === (int) $day->format('n'))
            && (! isset($parts['BYMONTHDAY']) || in_array((int) $parts['BYMONTHDAY'], [$date, $date - (int) $day->format('t') - 1], true))
            && ($nth === null || (strtoupper(substr($day->format('D'), 0, 2)) === $nth[2] && ($nth[1] === ''
                || in_array((int) $nth[1], [intdiv($date - 1, 7) + 1, -(intdiv((int) $day->format('t') - $date, 7) + 1)], true))));
    }
}
