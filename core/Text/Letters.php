<?php

declare(strict_types=1);

namespace VividLedger\Text;

/** How far two words are from each other, by letters: "für" and "fur" differ in one, however many bytes a letter takes. */
final class Letters
{
    /** As many different letters as there are single bytes; texts with more of them are not words. */
    private const MOST = 256;

    /**
     * How many letters are too many, missing or others (V. I. Levenshtein, 1966).
     *
     * @return int from 0; for what is no pair of words, the length of the longer
     */
    public static function distance(string $one, string $other): int
    {
        [$first, $second] = [mb_str_split($one), mb_str_split($other)];
        $alphabet = array_flip(array_values(array_unique([...$first, ...$second])));
        if (count($alphabet) > self::MOST) {
            return max(count($first), count($second));
        }

        return levenshtein(self::bytes($first, $alphabet), self::bytes($second, $alphabet));
    }

    /** The same, where two neighbours that changed places are one slip (as in F. J. Damerau, 1964, for one slip alone). */
    public static function slips(string $one, string $other): int
    {
        $letters = mb_str_split($one);
        for ($at = 0; $at + 1 < count($letters); $at++) {
            $turned = $letters;
            [$turned[$at], $turned[$at + 1]] = [$letters[$at + 1], $letters[$at]];
            if (implode('', $turned) === $other) {
                return 1;
            }
        }

        return self::distance($one, $other);
    }

    /**
     * @param  list<string>  $letters
     * @param  array<string, int>  $alphabet  a byte for each letter
     */
    private static function bytes(array $letters, array $alphabet): string
    {
        return implode('', array_map(static fn (string $letter): string => chr($alphabet[$letter]), $letters));
    }
}
