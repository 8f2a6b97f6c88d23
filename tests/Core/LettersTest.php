<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VividLedger\Text\Letters;

/** Words are as far from each other as they have letters that differ, whatever alphabet they are written in. */
final class LettersTest extends TestCase
{
    public function test_letters_count_and_not_their_bytes(): void
    {
        self::assertSame(0, Letters::distance('Gärtnerei', 'Gärtnerei'));
        self::assertSame(1, Letters::distance('für', 'fur'));
        self::assertSame(1, Letters::distance('fü', 'für'));
        self::assertSame(3, Letters::distance('größe', 'grosse'), 'o for ö, s for ß, and one more');
        self::assertSame(1, Letters::slips('müller', 'mülelr'));
        self::assertSame(2, Letters::distance('müller', 'mülelr'));
        self::assertSame(3, Letters::slips('', 'abc'));
    }

    public function test_it_is_a_distance(): void
    {
        mt_srand(7);
        $word = static fn (): string => implode('', array_map(
            static fn (): string => ['a', 'b', 'ä', 'ß', 'é', '–'][mt_rand(0, 5)], array_fill(0, mt_rand(1, 7), 0),
        ));
        for ($count = 0; $count < 2_000; $count++) {
            [$one, $two, $three] = [$word(), $word(), $word()];
            $distance = Letters::distance($one, $two);
            self::assertSame($distance, Letters::distance($two, $one), "{$one} and {$two}, either way");
            self::assertSame($one === $two, $distance === 0);
            self::assertLessThanOrEqual($distance + Letters::distance($two, $three), Letters::distance($one, $three), 'no way is shorter');
            self::assertLessThanOrEqual(max(mb_strlen($one), mb_strlen($two)), $distance);
            // Written with other letters it is as far.
            $plain = ['ä' => 'c', 'ß' => 'd', 'é' => 'e', '–' => 'f'];
            self::assertSame(levenshtein(strtr($one, $plain), strtr($two, $plain)), $distance);
            self::assertContains(Letters::slips($one, $two), [$distance, 1]);
        }
    }
}
