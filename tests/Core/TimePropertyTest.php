<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Core\Support\World;
use VividLedger\Rule\Limits;
use VividLedger\Rule\Timing\Occasion;
use VividLedger\Rule\Trigger\ComesRound;
use VividLedger\Rule\Trigger\DateArrives;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Time\Amount;
use VividLedger\Time\Due;
use VividLedger\Time\Roll;
use VividLedger\Time\Timetable;
use VividLedger\Time\Unit;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;

/** Time against slow and obviously right ways of reckoning it, at random. */
final class TimePropertyTest extends TestCase
{
    private const ZONES = [
        'Europe/Berlin', 'Europe/Lisbon', 'America/Sao_Paulo', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'America/New_York', 'UTC',
    ];

    private Randomizer $random;

    protected function setUp(): void
    {
        $this->random = new Randomizer(new Mt19937(11));
    }

    public function test_days_and_months_agree_with_the_calendar_of_the_language(): void
    {
        for ($count = 0; $count < 600; $count++) {
            $zone = new \DateTimeZone($this->one(self::ZONES));
            // At noon no clock ever changes.
            $base = (new \DateTimeImmutable('@'.$this->random->getInt(1_700_000_000, 1_900_000_000)))->setTimezone($zone)->setTime(12, 0);
            $amount = $this->random->getInt(-400, 400);
            foreach ([[Unit::Day, 'days'], [Unit::Week, 'weeks']] as [$unit, $word]) {
                self::assertEquals(
                    $base->modify(sprintf('%+d %s', $amount, $word)),
                    (new Amount($amount, $unit))->from($base, $zone),
                    "{$base->format('c')} {$amount} {$word}",
                );
            }
            $months = intdiv($amount, 10);
            $first = $base->modify('first day of this month')->modify(sprintf('%+d months', $months));
            $expected = $first->modify('+'.(min((int) $base->format('j'), (int) $first->format('t')) - 1).' days');
            self::assertEquals($expected, (new Amount($months, Unit::Month))->from($base, $zone));
        }
    }

    public function test_working_time_agrees_with_a_walk_minute_by_minute_and_day_by_day(): void
    {
        $hours = [
            '1' => [['08:30', '12:00'], ['13:00', '17:00']], '2' => [['08:30', '17:00']], '3' => [], '4' => [['22:00', '24:00']],
            '6' => [['00:00', '02:30']], '7' => [['01:30', '03:30']],
        ];
        $holidays = ['2026-03-30', '2026-10-26'];
        for ($count = 0; $count < 120; $count++) {
            $zone = new \DateTimeZone($this->one(self::ZONES));
            $calendar = new WorkingCalendar(WorkingHours::of(array_filter($hours), $holidays), $zone);
            $base = new \DateTimeImmutable(
                '@'.(60 * intdiv($this->random->getInt(1_774_400_000, 1_775_200_000) + ($count % 2) * 18_100_000, 60)),
            );
            $minutes = $this->random->getInt(1, 900);
            $works = static function (\DateTimeImmutable $at) use ($zone, $hours, $holidays): bool {
                $local = $at->setTimezone($zone);
                $time = $local->format('H:i');
                foreach (in_array($local->format('Y-m-d'), $holidays, true) ? [] : ($hours[$local->format('N')] ?? []) as [$from, $to]) {
                    if ($time >= $from && $time < $to) {
                        return true;
                    }
                }

                return false;
            };
            // Where the clock goes back over working hours, the wall shows them twice, and a calendar counts from their first to their
            // last.
            $at = $base;
            for ($left = $minutes, $steps = 0; $left > 0; $at = $at->modify('+1 minute')) {
                $left -= $works($at) ? 1 : 0;
                $steps++;
            }
            $between = $calendar->between($base, $at);
            self::assertEqualsWithDelta(60 * $minutes, $between, 3600, "{$base->format('c')} {$minutes} in {$zone->getName()}");
            if ($between === 60 * $minutes) {
                self::assertEquals(
                    $at,
                    $calendar->add($base, 60 * $minutes),
                    "{$base->format('c')} {$minutes} minutes in {$zone->getName()}",
                );
            }

            $days = $this->random->getInt(1, 12);
            $day = $base->setTimezone($zone)->setTime(12, 0);
            for ($left = $days; $left > 0;) {
                $day = $day->modify('+1 day');
                $left -= ($hours[$day->format('N')] ?? []) !== [] && ! in_array($day->format('Y-m-d'), $holidays, true) ? 1 : 0;
            }
            self::assertSame(
                $day->format('Y-m-d'),
                $calendar->addDays($base->setTimezone($zone)->setTime(12, 0), $days, $zone)->setTimezone($zone)->format('Y-m-d'),
            );
        }
    }

    public function test_the_bases_found_by_halving_are_those_a_walk_finds(): void
    {
        $calendar = (new World)->calendar(null);
        for ($count = 0; $count < 150; $count++) {
            $zone = new \DateTimeZone($this->one(self::ZONES));
            $unit = $this->one(Unit::cases());
            $due = new Due(
                new Amount($this->random->getInt(-15, 15), $unit),
                $this->one([null, Roll::Next, Roll::Previous]),
                $unit->isShort() ? null : $this->one([null, '09:00', '23:30']),
            );
            $after = new \DateTimeImmutable('@'.$this->random->getInt(1_770_000_000, 1_800_000_000));
            $until = $after->modify('+'.$this->random->getInt(1, 200_000).' seconds');
            [$first, $last] = $due->bases($after, $until, $zone, $calendar);
            foreach ([-7200, -1, 0, 1, 1800] as $offset) {
                foreach ([$first, $last] as $end) {
                    $base = $end->modify(sprintf('%+d seconds', $offset));
                    $moment = $due->from($base, $zone, $calendar);
                    $inside = $moment > $after && $moment <= $until;
                    $isExact = $due->time !== null || ($due->roll === null && $unit !== Unit::WorkingDay);
                    if ($isExact || $inside) {
                        self::assertSame(
                            $base > $first && $base <= $last,
                            $inside,
                            json_encode([
                                $due->amount->amount, $unit->value, $due->roll?->value, $due->time, $zone->getName(), $base->format('c'),
                            ]) ?: '',
                        );
                    }
                }
            }
        }
    }

    public function test_the_days_a_sweep_looks_for_are_those_whose_moment_lies_between(): void
    {
        $world = new World;
        $calendar = $world->calendar(null);
        for ($count = 0; $count < 120; $count++) {
            $unit = $this->one([Unit::Day, Unit::Week, Unit::Month, Unit::WorkingDay, Unit::Hour]);
            $when = [
                'kind' => 'date', 'field' => 'due', 'amount' => $this->random->getInt(-40, 40), 'unit' => $unit->value,
            ] + ($unit === Unit::Hour ? []
                : ['time' => $this->one(['00:00', '09:00', '23:59'])]) + $this->one([[], ['roll' => 'next'], ['roll' => 'previous']]);
            $trigger = $world->rule(['when' => $when])->trigger;
            self::assertInstanceOf(DateArrives::class, $trigger);
            $zone = new \DateTimeZone($this->one(self::ZONES));
            $after = new \DateTimeImmutable('@'.$this->random->getInt(1_770_000_000, 1_800_000_000));
            $until = $after->modify('+'.$this->random->getInt(60, 400_000).' seconds');
            $walked = [];
            for ($day = $after->modify('-1400 days'); $day < $until->modify('+1400 days'); $day = $day->modify('+1 day')) {
                $moment = $trigger->arriving()->moment($day->format('Y-m-d'), null, $calendar, $zone);
                if ($moment > $after && $moment <= $until) {
                    $walked[] = $day->format('Y-m-d');
                }
            }
            self::assertSame($walked, $trigger->arriving()->daysBetween($after, $until, $calendar, $zone), (string) json_encode($when));
        }
    }

    public function test_quiet_hours_let_through_the_next_moment_that_is_allowed(): void
    {
        $world = new World;
        for ($count = 0; $count < 150; $count++) {
            $from = sprintf('%02d:00', $this->random->getInt(0, 11));
            $to = sprintf('%02d:30', $this->random->getInt(12, 23));
            $working = $this->random->getInt(0, 1) === 1;
            $context = new Context(World::schema(), $world, World::schema()->types['ticket'], $world->zone());
            $limits = Limits::read(
                $context,
                new Node(['outside' => ['from' => $from, 'to' => $to] + ($working ? ['workingDays' => true] : [])]),
                true,
            );
            self::assertNotNull($limits);
            $occasion = new Occasion($world->now, World::ticket(), $world, null, $world->zone());
            $at = new \DateTimeImmutable('@'.(60 * $this->random->getInt(29_600_000, 29_700_000)));
            $walk = $at;
            while (! (($time = $walk->setTimezone($world->zone())->format('H:i')) >= $from && $time < $to
                && (! $working || (int) $walk->setTimezone($world->zone())->format('N') < 6))) {
                $walk = $walk->modify('+1 minute');
            }
            self::assertEquals($walk, $limits->allowed($at, $occasion), "{$at->format('c')} {$from}-{$to}");
        }
    }

    public function test_timetables_come_round_when_their_words_say(): void
    {
        $zone = new \DateTimeZone('Europe/Berlin');
        $calendar = (new World)->calendar(null);
        foreach (['FREQ=DAILY' => static fn (): bool => true,
            'FREQ=WEEKLY;BYDAY=MO,TH' => static fn (\DateTimeImmutable $day): bool => in_array(
                $day->format('N'),
                ['1', '4'],
                true,
            ),
            'FREQ=MONTHLY;BYMONTHDAY=-1' => static fn (\DateTimeImmutable $day): bool => $day->format('j') === $day->format('t'),
            'FREQ=MONTHLY;BYDAY=2TU' => static fn (\DateTimeImmutable $day): bool => $day->format('N') === '2'
                && (int) ceil((int) $day->format('j') / 7) === 2,
            'FREQ=WEEKLY;INTERVAL=2;BYDAY=WE' => static fn (\DateTimeImmutable $day): bool => $day->format('N') === '3'
                && (int) $day->setTime(12, 0)->diff(new \DateTimeImmutable('2026-09-02 12:00',
                    $day->getTimezone()))->days % 14 === 0] as $rule => $isDay) {
            $timetable = Timetable::of($rule, '02:30', '2026-09-01', false);
            $working = Timetable::of($rule, '02:30', '2026-09-01', true);
            [$after, $until] = [new \DateTimeImmutable('2026-10-01T00:00:00Z'), new \DateTimeImmutable('2027-04-10T12:00:00Z')];
            $days = [];
            for ($day = new \DateTimeImmutable('2026-10-01', $zone); $day < $until; $day = $day->modify('+1 day')) {
                if ($isDay($day)) {
                    $days[] = $day->format('Y-m-d');
                }
            }
            $said = static fn (Timetable $of): array => array_map(
                static fn (\DateTimeImmutable $at): string => $at->setTimezone($zone)->format('Y-m-d'),
                $of->between($after, $until, $zone, $calendar),
            );
            self::assertSame($days, $said($timetable), $rule);
            self::assertSame(
                array_values(array_filter($days, static fn (string $day): bool => (int) (new \DateTimeImmutable($day))->format('N') < 6)),
                $said($working),
                $rule,
            );
        }
        self::assertInstanceOf(
            ComesRound::class,
            (new World)->rule([
                'when' => ['kind' => 'timetable', 'rrule' => 'FREQ=DAILY', 'time' => '08:00', 'from' => '2026-11-01'],
            ])->trigger,
        );
    }

    /**
     * @template T
     *
     * @param  non-empty-list<T>  $from
     * @return T
     */
    private function one(array $from): mixed
    {
        return $from[$this->random->getInt(0, count($from) - 1)];
    }
}
