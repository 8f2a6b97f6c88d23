<?php

declare(strict_types=1);

namespace VividLedger\Words;

/**
 * A number as people of a language type it: "1.234,50" in German, "1,234.50" in English. What is clear by itself is taken in both:
 * "2,5" has no thousands, whoever types it.
 */
final class TypedNumber
{
    private const POINTS = ['de' => ','];

    /** @return string with a point and without thousands, such as "1234.50"; what is no number comes back as it is */
    public static function read(string $typed, string $language): string
    {
        $text = (string) preg_replace('/[\s\x{00A0}\x{2009}\x{202F}\'’]/u', '', $typed);
        $text = strtr($text, ['−' => '-', '–' => '-']);
        if (preg_match('/^[+-]?\d[\d.,]*$/D', $text) !== 1) {
            return $typed;
        }
        $point = self::pointOf($text, self::POINTS[$language] ?? '.');
        $group = $point === ',' ? '.' : ',';
        [$whole, $rest] = [...explode($point, $text, 2), ''];
        if ((str_contains($whole, $group) && ! self::isGrouped($whole, $group)) || preg_match('/^\d*$/D', $rest) !== 1) {
            return $typed;
        }

        return ltrim(str_replace($group, '', $whole), '+').($rest === '' ? '' : ".{$rest}");
    }

    /** A number that is kept, as it is shown where it can be typed anew. */
    public static function shown(string $kept, string $language): string
    {
        return preg_match('/^-?\d+\.\d+$/D', $kept) === 1 ? str_replace('.', self::POINTS[$language] ?? '.', $kept) : $kept;
    }

    /**
     * What parts whole and rest: the last of two different marks; else the language's own, or the other where it parts no thousands.
     *
     * @param  ','|'.'  $own
     * @return ','|'.'
     */
    private static function pointOf(string $text, string $own): string
    {
        $other = $own === ',' ? '.' : ',';
        $ofOwn = strrpos($text, $own);
        $ofOther = strrpos($text, $other);
        if ($ofOwn !== false && $ofOther !== false) {
            return $ofOwn > $ofOther ? $own : $other;
        }
        if (substr_count($text, $own) > 1) {
            return $other;
        }

        return $ofOther !== false && ! self::isGrouped($text, $other) ? $other : $own;
    }

    private static function isGrouped(string $text, string $mark): bool
    {
        return preg_match('/^[+-]?\d{1,3}('.preg_quote($mark, '/').'\d{3})+$/D', $text) === 1;
    }
}
