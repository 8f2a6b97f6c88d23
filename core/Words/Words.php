<?php

declare(strict_types=1);

namespace VividLedger\Words;

/**
 * What the product itself says, in the language of whoever reads it: the English sentence stands where it is said and is the key by
 * which other languages know it (as in GNU gettext). What the company wrote, and the text of rules, stays as it is.
 *
 * The language is one of the whole process and is set by whoever serves a reader. What is kept is never said with this: it would be
 * kept in the language of whoever happened to save.
 */
final class Words
{
    public const OWN = 'en';

    private static string $language = self::OWN;

    /** @var array<string, string> */
    private static array $sentences = [];

    /** @param  array<string, string>  $sentences  by the English ones; one that is missing stays English */
    public static function speak(string $language, array $sentences): void
    {
        self::$language = $language;
        self::$sentences = $sentences;
    }

    /**
     * What is done in English, because it is kept.
     *
     * @template T
     *
     * @param  \Closure(): T  $what
     * @return T
     */
    public static function toKeep(\Closure $what): mixed
    {
        if (self::$language === self::OWN) {
            return $what();
        }
        [$language, $sentences] = [self::$language, self::$sentences];
        self::speak(self::OWN, []);
        try {
            return $what();
        } finally {
            self::speak($language, $sentences);
        }
    }

    public static function language(): string
    {
        return self::$language;
    }

    /** A sentence whose {parts} are filled in by name. */
    public static function say(string $sentence, string|int ...$parts): string
    {
        return self::filled(self::$sentences[$sentence] ?? $sentence, $parts);
    }

    /** "1 record", "12,000 records": "{count} record|{count} records", of which the one that goes with a count is said. */
    public static function counted(int $count, string $forms, string|int ...$parts): string
    {
        $said = explode('|', self::$sentences[$forms] ?? $forms);

        return self::filled($count === 1 ? $said[0] : $said[1] ?? $said[0], ['count' => self::figures($count)] + $parts);
    }

    /** "12,000", as the language groups it. */
    public static function figures(int $number): string
    {
        /** @var array<string, \NumberFormatter> $formatters making one takes longer than using it a thousand times */
        static $formatters = [];
        $formatters[self::$language] ??= new \NumberFormatter(self::$language, \NumberFormatter::DECIMAL);

        return (string) $formatters[self::$language]->format($number);
    }

    /**
     * "a, b and c"
     *
     * @param  list<string>  $items
     */
    public static function list(array $items): string
    {
        $last = array_pop($items);

        return $items === [] ? (string) $last : self::say('{items} and {last}', items: implode(', ', $items), last: (string) $last);
    }

    /** “What somebody wrote”, in the quotes of the language. */
    public static function quoted(string $text): string
    {
        return self::say('“{text}”', text: $text);
    }

    /** A name that the company gave, within a sentence: English writes it small, German nouns stay large. */
    public static function within(string $label): string
    {
        return self::$language === 'de' ? $label : mb_strtolower($label);
    }

    /** @param  array<array-key, string|int>  $parts */
    private static function filled(string $sentence, array $parts): string
    {
        $places = [];
        foreach ($parts as $name => $part) {
            $places['{'.$name.'}'] = (string) $part;
        }

        return $places === [] ? $sentence : strtr($sentence, $places);
    }
}
