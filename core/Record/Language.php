<?php

declare(strict_types=1);

namespace VividLedger\Record;

use VividLedger\Words\Words;

/** How dates and numbers are written in a language. */
enum Language: string
{
    case English = 'en';
    case German = 'de';
    case Portuguese = 'pt';
    case Finnish = 'fi';

    /** The one in which whoever reads is spoken to. */
    public static function spoken(): self
    {
        return self::tryFrom(Words::language()) ?? self::English;
    }

    /** How a date is laid out, in the letters of Unicode (UTS 35); the names of the months come with them. */
    private function pattern(): string
    {
        return match ($this) {
            self::English => 'd MMM y',
            self::German => 'd. MMM y',
            self::Portuguese => "d 'de' MMM 'de' y",
            self::Finnish => 'd.M.y',
        };
    }

    public function date(\DateTimeInterface $local): string
    {
        /** @var array<string, \IntlDateFormatter> $formatters making one takes longer than using it a thousand times */
        static $formatters = [];
        $formatter = $formatters[$this->value] ??= new \IntlDateFormatter($this->value, timezone: 'UTC', pattern: $this->pattern());

        // The day as it reads where it is told, so its zone is left out of it.
        return (string) $formatter->format(new \DateTimeImmutable($local->format('Y-m-d'), new \DateTimeZone('UTC')));
    }

    /** A decimal text such as "1240.50" with this language's separators: the text itself is grouped, a float would lose digits. */
    public function number(string $decimal): string
    {
        /** @var array<string, array{string, string}> $signs */
        static $signs = [];
        [$thousand, $point] = $signs[$this->value] ??= self::separators($this->value);
        [$whole, $fraction] = explode('.', $decimal) + [1 => ''];
        $grouped = preg_replace('/(?<=\d)(?=(\d{3})+$)/', $thousand, $whole) ?? $whole;

        return $fraction === '' ? $grouped : $grouped.$point.$fraction;
    }

    /** @return array{string, string} between thousands, and before decimals */
    private static function separators(string $language): array
    {
        $numbers = new \NumberFormatter($language, \NumberFormatter::DECIMAL);

        return [
            (string) $numbers->getSymbol(\NumberFormatter::GROUPING_SEPARATOR_SYMBOL),
            (string) $numbers->getSymbol(\NumberFormatter::DECIMAL_SEPARATOR_SYMBOL),
        ];
    }

    /** Signs go before the amount in English and behind it elsewhere. */
    public function money(string $decimal, string $sign): string
    {
        return trim($this === self::English ? "{$sign} {$this->number($decimal)}" : $this->number($decimal)."\u{A0}{$sign}");
    }

    public function yes(bool $ticked): string
    {
        return match ($this) {
            self::English => $ticked ? 'yes' : 'no',
            self::German => $ticked ? 'ja' : 'nein',
            self::Portuguese => $ticked ? 'sim' : 'não',
            self::Finnish => $ticked ? 'kyllä' : 'ei',
        };
    }

    /** What is said of a tick box by itself. */
    public function ticked(bool $ticked): string
    {
        return match ($this) {
            self::English => $ticked ? 'ticked' : 'not ticked',
            self::German => $ticked ? 'angekreuzt' : 'nicht angekreuzt',
            default => $this->yes($ticked),
        };
    }

    /** What is said of an empty value. */
    public function nothing(): string
    {
        return match ($this) {
            self::English => 'empty',
            self::German => 'leer',
            self::Portuguese => 'vazio',
            self::Finnish => 'tyhjä',
        };
    }

    /** @param  list<string>  $items */
    public function list(array $items): string
    {
        $last = array_pop($items);
        $and = match ($this) {
            self::English => 'and',
            self::German => 'und',
            self::Portuguese => 'e',
            self::Finnish => 'ja',
        };

        return $items === [] ? (string) $last : implode(', ', $items)." {$and} {$last}";
    }
}
