<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VividLedger\Rehearse\LineDifference;

/** A difference tells both lists: without what is new it is the old one, without what is gone the new one. */
final class LineDifferenceTest extends TestCase
{
    public function test_both_lists_can_be_read_from_it(): void
    {
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(7));
        for ($count = 0; $count < 400; $count++) {
            $list = static fn (): array => array_map(
                static fn (): string => chr(97 + $random->getInt(0, 5)),
                range(1, $random->getInt(1, 14)),
            );
            [$was, $is] = [$random->getInt(0, 9) === 0 ? [] : $list(), $random->getInt(0, 9) === 0 ? [] : $list()];
            $lines = LineDifference::between($was, $is);
            $without = static fn (string $mark): array => array_values(array_map(
                static fn (array $line): string => $line[0],
                array_filter($lines, static fn (array $line): bool => $line[1] !== $mark),
            ));
            self::assertSame($was, $without('new'));
            self::assertSame($is, $without('gone'));
            self::assertSame(
                $was === $is,
                ! in_array('gone', array_column($lines, 1), true) && ! in_array('new', array_column($lines, 1), true),
            );
        }
    }

    public function test_it_keeps_as_much_as_can_be_kept(): void
    {
        self::assertSame(
            [['a', 'same'], ['b', 'gone'], ['x', 'new'], ['c', 'same'], ['d', 'same']],
            LineDifference::between(['a', 'b', 'c', 'd'], ['a', 'x', 'c', 'd']),
        );
    }
}
