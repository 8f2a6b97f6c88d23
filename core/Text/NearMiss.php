<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Shape\Typed;

/** What was not understood in a typed text, and what could stand there instead, what is nearly spelt so first. */
final class NearMiss
{
    private const ARTICLE = '/^(?:the|an?)\s+/iu';

    public static function of(Typed $typed, int $line = 1): Misreading
    {
        [$position, $word, $expected] = $typed->furthest();
        $rest = mb_strtolower(mb_substr($typed->text, $position));
        $words = array_filter(
            array_map(strval(...), array_keys($expected)),
            static fn (string $one): bool => preg_match('/[\p{L}“…›]/u', $one) === 1,
        );
        $distances = [];
        foreach ($words as $one) {
            $distances[$one] = self::distance($one, $rest);
        }
        usort($words, static fn (string $one, string $other): int => [$distances[$one] ?? 9, $expected[$one], mb_strlen($one)]
            <=> [$distances[$other] ?? 9, $expected[$other], mb_strlen($other)]);
        $best = $words[0] ?? '';
        $isNear = $word !== '' && isset($distances[$best]) && ($distances[$words[1] ?? ''] ?? 9) >= $distances[$best];

        return new Misreading(
            line: $line, position: $position, word: $word, expected: $words,
            offers: array_values(array_filter($words, static fn (string $one): bool => $expected[$one] < 2 && ! str_contains($one, '…'))),
            meant: $isNear ? $best : null,
        );
    }

    /** @return ?int how many letters are wrong, where it is few; null where it is another word */
    private static function distance(string $expected, string $typed): ?int
    {
        $expected = mb_strtolower((string) preg_replace(self::ARTICLE, '', $expected));
        $typed = (string) preg_replace(self::ARTICLE, '', $typed);
        $length = mb_strlen($expected);
        if ($length < 3 || $length > 60) {
            return null;
        }
        $most = $length < 5 ? 1 : ($length < 13 ? 2 : 3);
        // As many words as are expected, of those that are typed.
        $count = substr_count($expected, ' ') + 1;
        $said = implode(' ', array_slice(preg_split('/[\s,.;:]+/', $typed) ?: [], 0, $count));
        $distance = Letters::distance($expected, mb_substr($said, 0, 120));
        // What is only begun is not misspelt.
        $first = explode(' ', $said)[0];

        return match (true) {
            $distance > 0 && $distance <= $most => $distance,
            mb_strlen($first) > 2 && str_starts_with($expected, $first) => 4,
            default => null,
        };
    }
}
