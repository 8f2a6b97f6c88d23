<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\Words\TypedNumber;

/** Numbers as they are typed in German and in English; the screens read them by the same cases (tests/Screens/numbers.test.ts). */
final class TypedNumberTest extends TestCase
{
    public function test_a_number_is_read_as_its_language_writes_it(): void
    {
        foreach (json_decode((string) file_get_contents(__DIR__.'/numbers.json'), true) as [$typed, $english, $german]) {
            self::assertSame([$english, $german], [TypedNumber::read($typed, 'en'), TypedNumber::read($typed, 'de')], $typed);
        }
    }

    public function test_what_is_shown_is_read_as_what_is_kept(): void
    {
        $random = new Randomizer(new Mt19937(3));
        for ($nth = 0; $nth < 2000; $nth++) {
            $scale = $random->getInt(0, 4);
            $kept = ($random->getInt(0, 1) === 1 ? '-' : '').$random->getInt(1, 9_999_999)
                .($scale === 0 ? '' : '.'.str_pad((string) $random->getInt(0, 10 ** $scale - 1), $scale, '0', STR_PAD_LEFT));
            foreach (['en', 'de'] as $language) {
                self::assertSame($kept, TypedNumber::read(TypedNumber::shown($kept, $language), $language), "{$kept} in {$language}");
            }
        }
    }
}
