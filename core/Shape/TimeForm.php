<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\Time\Unit;

/** Forms for lengths of time and for moments. */
final class TimeForm
{
    private const IN_DAYS = [Unit::Day, Unit::WorkingDay, Unit::Week, Unit::Month, Unit::Year];

    /** A length of time by itself. */
    public static function length(string $label = 'How long', bool $inDays = false, int $least = 1): Editor
    {
        return Editor::form($label, static fn (): array => [
            new Way('', [], [FormField::time(['amount' => 7, 'unit' => 'day'], least: $least, units: self::units($inDays))], keeps: true),
        ]);
    }

    /**
     * A length of time before or after something.
     *
     * @param  array{string, string}  $sides  words for after and before
     * @param  array<string, mixed>  $with
     * @param  ?\Closure(): list<Offer>  $offers  what can stand there besides
     */
    public static function signed(array $sides, bool $inDays = false, array $with = [], ?\Closure $offers = null): Editor
    {
        return Editor::form('How far from it', static fn (): array => [
            new Way(
                '',
                $with,
                [FormField::time(['amount' => 7, 'unit' => 'day'], sides: $sides, units: self::units($inDays))],
                keeps: true,
            ),
        ], offers: $offers);
    }

    /** How far from a date something falls: the working day, the time of day and the clock too. */
    public static function moment(): Editor
    {
        return Editor::form('How far from it', static fn (): array => [new Way('', [], [FormField::time(
            ['amount' => 0, 'unit' => 'day'], sides: ['after', 'before'], hasTime: true, hasClock: true,
        )], keeps: true)]);
    }

    /** @return list<string> none for all */
    private static function units(bool $inDays): array
    {
        return $inDays ? array_map(static fn (Unit $unit): string => $unit->value, self::IN_DAYS) : [];
    }
}
