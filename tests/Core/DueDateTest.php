<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\Time\Amount;
use VividLedger\Time\Unit;

/** Due dates in calendar time: against cases worked out elsewhere, and against a slow walk through real clocks. */
final class DueDateTest extends TestCase
{
    public function test_the_cases_in_calendar_units_agree(): void
    {
        $tried = 0;
        foreach (file(__DIR__.'/due.jsonl', FILE_IGNORE_NEW_LINES | FILE_SKIP_EMPTY_LINES) ?: [] as $number => $line) {
            /** @var array{base: string, amount: int, unit: string, zone: string, due: string} $case */
            $case = json_decode($line, true, 8, JSON_THROW_ON_ERROR);
            $unit = Unit::tryFrom($case['unit']);
            if ($unit === null || $unit->isWorking() || ($case['roll'] ?? null) !== null || ($case['at'] ?? null) !== null) {
                continue; // working time, rolling and times of day are not part of the core yet
            }
            $due = (new Amount($case['amount'], $unit))->from(new \DateTimeImmutable($case['base']), new \DateTimeZone($case['zone']));
            self::assertSame(
                (new \DateTimeImmutable($case['due']))->getTimestamp(),
                $due->getTimestamp(),
                'line '.($number + 1).": {$line}",
            );
            $tried++;
        }
        self::assertGreaterThan(100, $tried);
    }

    /** The first instant, found by walking minute by minute, at which a wall clock shows the wanted time. */
    public function test_days_keep_the_wall_clock_across_clock_changes(): void
    {
        $random = new Randomizer(new Mt19937(7));
        $zones = ['Europe/Berlin', 'Europe/Lisbon', 'Europe/Helsinki', 'America/Sao_Paulo', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'UTC'];
        for ($count = 0; $count < 250; $count++) {
            $zone = new \DateTimeZone($zones[$random->getInt(0, count($zones) - 1)]);
            $change = $random->getInt(0, 1) === 0 ? '2026-03-29' : '2026-10-25';
            $base = (new \DateTimeImmutable($change.'T00:00:00Z'))->modify($random->getInt(-3 * 1440, 3 * 1440).' minutes');
            $days = $random->getInt(-4, 4);
            $due = (new Amount($days, Unit::Day))->from($base, $zone);
            $local = $base->setTimezone($zone);
            $wanted = $local->setDate((int) $local->format('Y'), (int) $local->format('n'), (int) $local->format('j'))->format('H:i');
            $date = (new \DateTimeImmutable($local->format('Y-m-d'), new \DateTimeZone('UTC')))->modify(sprintf('%+d days', $days))
                ->format('Y-m-d');
            $expected = $days === 0 ? $base : $this->walk($date, $wanted, $zone);

            self::assertSame($expected->getTimestamp(), $due->getTimestamp(), "{$base->format('c')} {$days} days in {$zone->getName()}");
        }
    }

    public function test_a_month_too_short_clamps(): void
    {
        $zone = new \DateTimeZone('UTC');
        $due = static fn (string $base, int $amount, Unit $unit): string => (new Amount($amount, $unit))->from(
            new \DateTimeImmutable($base),
            $zone,
        )->format('Y-m-d');

        self::assertSame('2026-02-28', $due('2026-01-31', 1, Unit::Month));
        self::assertSame('2028-02-29', $due('2028-03-31', -1, Unit::Month));
        self::assertSame('2029-02-28', $due('2028-02-29', 1, Unit::Year));
        self::assertSame('2025-12-31', $due('2026-01-31', -1, Unit::Month));
    }

    private function walk(string $date, string $time, \DateTimeZone $zone): \DateTimeImmutable
    {
        $from = (new \DateTimeImmutable("{$date}T00:00:00Z"))->modify('-16 hours');
        $gap = null;
        for ($minute = 0; $minute < 56 * 60; $minute++) {
            $at = $from->modify("+{$minute} minutes");
            $shown = $at->setTimezone($zone)->format('Y-m-d H:i');
            if ($shown === "{$date} {$time}") {
                return $at;
            }
            // The clock jumped over the wanted time: it moves forward by the gap.
            $before = $at->modify('-1 minute')->setTimezone($zone)->format('Y-m-d H:i');
            if ($gap === null && $before < "{$date} {$time}" && $shown > "{$date} {$time}") {
                $wall = static fn (string $text): int => (new \DateTimeImmutable("{$text}:00Z"))->getTimestamp();
                $gap = $at->modify('+'.($wall("{$date}T{$time}") - $wall(strtr($before, ' ', 'T')) - 60).' seconds');
            }
        }

        return $gap ?? throw new \LogicException("{$date} {$time} never comes.");
    }
}
