<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Typed;

/** Of all ways to understand a whole text those that are nearest to what is printed. */
final class Nearest
{
    /** Nobody chooses from more. */
    private const MOST = 4;

    /**
     * A text as it is printed, and only where it is not, as people say it.
     *
     * @param  \Closure(Typed): list<Parsed>  $parse
     * @return array{Typed, list<array<mixed>>} what was typed, and what it can mean
     */
    public static function heard(string $text, \Closure $parse): array
    {
        $typed = new Typed($text, isLoose: false);
        $read = self::of($typed, $parse($typed));
        if ($read === []) {
            $hurried = new Typed($text, isHurried: true);
            $read = self::of($hurried, $parse($hurried));
        }
        if ($read === []) {
            // Nothing was understood: now everything is tried, to tell what could have stood there.
            $typed = new Typed($text);
            $read = self::of($typed, $parse($typed));
        }

        return [$typed, $read];
    }

    /**
     * @param  list<Parsed>  $found
     * @return list<array<mixed>> one when it is understood, several when it can mean several things, none when it is not
     */
    public static function of(Typed $typed, array $found): array
    {
        $whole = array_values(array_filter($found, static fn (Parsed $one): bool => $typed->isDone($one->end)));
        if ($whole === []) {
            return [];
        }
        $cost = min(array_map(static fn (Parsed $one): int => $one->cost, $whole));
        $nearest = [];
        foreach ($whole as $one) {
            if ($one->cost === $cost && is_array($one->json)) {
                $nearest[(string) json_encode(RuleText::plain($one->json))] ??= $one->json;
            }
        }

        return array_slice(array_values($nearest), 0, self::MOST);
    }
}
