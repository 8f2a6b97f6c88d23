<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\Record\Language;

/** Dates, numbers and lists as the languages of Larkmoss's customers write them. */
final class LanguageTest extends TestCase
{
    /**
     * @return iterable<string, array{Language, array<string, string>, array<string, string>, array<string, string>}> dates, numbers,
     *     amounts in euros
     */
    public static function languages(): iterable
    {
        yield 'English' => [
            Language::English,
            ['2026-03-01' => '1 Mar 2026', '2026-12-31' => '31 Dec 2026'],
            [
                '0' => '0', '999' => '999', '1000' => '1,000', '-1240.50' => '-1,240.50',
                '12345678901234567890.5' => '12,345,678,901,234,567,890.5',
            ],
            ['1240.50' => '€ 1,240.50'],
        ];
        yield 'German' => [
            Language::German,
            ['2026-03-01' => '1. März 2026', '2026-12-31' => '31. Dez. 2026'],
            [
                '0' => '0', '999' => '999', '1000' => '1.000', '-1240.50' => '-1.240,50',
                '12345678901234567890.5' => '12.345.678.901.234.567.890,5',
            ],
            ['1240.50' => "1.240,50\u{A0}€"],
        ];
        yield 'Portuguese' => [
            Language::Portuguese,
            ['2026-03-01' => '1 de mar. de 2026', '2026-12-31' => '31 de dez. de 2026'],
            ['0' => '0', '999' => '999', '1000' => '1.000', '-1240.50' => '-1.240,50'],
            ['1240.50' => "1.240,50\u{A0}€"],
        ];
        yield 'Finnish' => [
            Language::Finnish,
            ['2026-03-01' => '1.3.2026', '2026-12-31' => '31.12.2026'],
            ['0' => '0', '999' => '999', '1000' => "1\u{A0}000", '-1240.50' => "-1\u{A0}240,50"],
            ['1240.50' => "1\u{A0}240,50\u{A0}€"],
        ];
    }

    /**
     * @param  array<string, string>  $dates
     * @param  array<string, string>  $numbers
     * @param  array<string, string>  $amounts
     */
    #[DataProvider('languages')]
    public function test_each_language_writes_in_its_way(Language $language, array $dates, array $numbers, array $amounts): void
    {
        foreach ($dates as $date => $written) {
            self::assertSame($written, $language->date(new \DateTimeImmutable($date)));
        }
        foreach ($numbers as $number => $written) {
            self::assertSame($written, $language->number((string) $number));
        }
        foreach ($amounts as $amount => $written) {
            self::assertSame($written, $language->money((string) $amount, '€'));
        }
    }

    public function test_lists_take_the_word_for_and_only_before_the_last(): void
    {
        $three = array_map(static fn (Language $language): string => $language->list(['Bar', 'Lobby', 'Spa']), Language::cases());

        self::assertSame(['Bar, Lobby and Spa', 'Bar, Lobby und Spa', 'Bar, Lobby e Spa', 'Bar, Lobby ja Spa'], $three);
        foreach (Language::cases() as $language) {
            self::assertSame('Spa', $language->list(['Spa']));
            self::assertSame('', $language->list([]));
            self::assertNotSame($language->yes(true), $language->yes(false));
        }
    }

    /** No digit is lost or made up, however long the number is. */
    public function test_taking_the_separators_out_gives_the_number_back(): void
    {
        $random = new Randomizer(new Mt19937(7));
        for ($count = 0; $count < 500; $count++) {
            $whole = $random->getInt(0, PHP_INT_MAX) >> $random->getInt(0, 62);
            $number = ($random->getInt(0, 1) === 1 ? '-' : '').$whole.($random->getInt(0, 1) === 1
                ? sprintf('.%02d', $random->getInt(0, 99)) : '');
            foreach (Language::cases() as $language) {
                [$thousand, $point] = $language === Language::English ? [',', '.'] : [
                    $language === Language::Finnish ? "\u{A0}" : '.', ',',
                ];
                $written = $language->number($number);
                self::assertSame($number, str_replace($point, '.', str_replace($thousand, '', $written)));
                self::assertMatchesRegularExpression(
                    '/^-?\d{1,3}('.preg_quote($thousand).'\d{3})*('.preg_quote($point).'\d+)?$/u',
                    $written,
                );
            }
        }
    }
}
