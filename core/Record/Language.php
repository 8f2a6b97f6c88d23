<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** How dates and numbers are written in a language. */
enum Language: string
{
    case English = 'en';
    case German = 'de';
    case Portuguese = 'pt';
    case Finnish = 'fi';

    private const MONTHS = [
        'de' => ['Jan.', 'Feb.', 'März', 'Apr.', 'Mai', 'Juni', 'Juli', 'Aug.', 'Sept.', 'Okt.', 'Nov.', 'Dez.'],
        'pt' => ['jan.', 'fev.', 'mar.', 'abr.', 'mai.', 'jun.', 'jul.', 'ago.', 'set.', 'out.', 'nov.', 'dez.'],
    ];

    public function date(\DateTimeInterface $local): string
    {
        return match ($this) {
            self::English => $local->format('j M Y'),
            self::German => $local->format('j. ').self::MONTHS['de'][(int) $local->format('n') - 1].$local->format(' Y'),
            self::Portuguese => $local->format('j \d\e ').self::MONTHS['pt'][(int) $local->format('n') - 1].$local->format(' \d\e Y'),
            self::Finnish => $local->format('j.n.Y'),
        };
    }

    /** A decimal text such as "1240.50" with this language's separators: the text itself is grouped, a float would lose digits. */
    public function number(string $decimal): string
    {
        [$thousand, $point] = match ($this) {
            self::English => [',', '.'],
            self::German, self::Portuguese => ['.', ','],
            self::Finnish => ["\u{A0}", ','],
        };
        [$whole, $fraction] = explode('.', $decimal) + [1 => ''];
        $grouped = preg_replace('/(?<=\d)(?=(\d{3})+$)/', $thousand, $whole) ?? $whole;

        return $fraction === '' ? $grouped : $grouped.$point.$fraction;
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
