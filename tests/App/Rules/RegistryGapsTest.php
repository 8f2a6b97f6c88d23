<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Clock\NativeClock;

/** The few lines of packages/registry-gaps behave as what they stand in for. */
final class RegistryGapsTest extends TestCase
{
    public function test_first_and_last(): void
    {
        self::assertSame([null, null], [array_first([]), array_last([])]);
        self::assertSame(['a', 'c'], [array_first([3 => 'a', 1 => 'b', 2 => 'c']), array_last([3 => 'a', 1 => 'b', 2 => 'c'])]);
        self::assertSame([null, false], [array_first([null]), array_last([true, false])]);
    }

    public function test_the_present_handlers_are_told_and_stay(): void
    {
        $mine = static fn (): bool => true;
        set_error_handler($mine);
        set_exception_handler($mine);
        try {
            self::assertSame([$mine, $mine], [get_error_handler(), get_error_handler()]);
            self::assertSame([$mine, $mine], [get_exception_handler(), get_exception_handler()]);
        } finally {
            restore_error_handler();
            restore_exception_handler();
        }
    }

    public function test_the_native_clock(): void
    {
        $clock = new NativeClock('Europe/Berlin');
        self::assertInstanceOf(ClockInterface::class, $clock);
        self::assertSame('Europe/Berlin', $clock->now()->getTimezone()->getName());
        self::assertSame('UTC', $clock->withTimeZone('UTC')->now()->getTimezone()->getName());
        $clock->sleep(0);
        self::assertEqualsWithDelta(time(), $clock->now()->getTimestamp(), 2);
    }
}
