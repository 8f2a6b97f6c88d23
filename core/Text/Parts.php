<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Condition\ConditionSlot;
use VividLedger\Rule\Guard\RepeatGuards;
use VividLedger\Rule\Limits;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\Typed;

/** The parts of a rule that have a word of their own before them: "Only if …", "Fires …". */
final class Parts
{
    /** By the key in a rule file: the word that is printed, and others that are heard. */
    private const WORDS = [
        'when' => ['When', 'whenever', 'each time', 'every time', 'as soon as', 'once', 'if', 'as', 'start when', 'starts when', 'on'],
        'onlyIf' => ['Only if', 'if', 'where', 'only when', 'when', 'provided', 'provided that', 'as long as', 'but only if', 'and',
            'only where',
            'only for those where', 'in case', 'and only if', 'while', 'that', 'and if', 'for', 'only', 'only for'],
        'fires' => [
            'Fires', 'firing', 'fire', 'it fires', 'fire it', 'run', 'runs', 'do it', 'do this', 'repeat', 'and', 'but', 'fires again',
            'run it',
        ],
        'until' => [
            'Until', 'stop when', 'stop if', 'stop once', 'stops when', 'end when', 'ends when', 'till', 'stop as soon as', 'and stop when',
        ],
        'never' => ['Never', 'not', 'do not', 'don’t', 'but never', 'do nothing'],
    ];

    /** @return list<string> the keys */
    public static function keys(): array
    {
        return array_keys(self::WORDS);
    }

    public static function word(string $part): string
    {
        return self::WORDS[$part][0] ?? '';
    }

    /**
     * @param  bool  $isBare  whether its word may be left out
     * @return list<Parsed>
     */
    public static function parse(string $part, Typed $typed, int $at, Scope $scope, bool $isBare = false): array
    {
        $found = [];
        foreach ($typed->isLoose ? self::WORDS[$part] ?? [] : [self::word($part)] as $nth => $word) {
            $behind = $typed->words($at, $word, $nth === 0 ? 0 : 3);
            foreach ($behind === null ? [] : self::slot($part)->parse($typed, $behind, $scope, []) as $one) {
                $found[] = $one->costlier(min(1, $nth));
            }
        }
        foreach ($isBare && $typed->isLoose ? self::slot($part)->parse($typed, $at, $scope, []) : [] as $one) {
            $found[] = $one->costlier(1);
        }
        foreach ($part === 'onlyIf' ? ConditionSlot::unless($typed, $at, $scope) : [] as $not) {
            $found[] = $not->as(
                is_array($not->json) && $not->json['kind'] === 'none' ? $not->json : ['kind' => 'all', 'of' => [$not->json]],
            );
        }

        return Parsed::distinct($found);
    }

    public static function slot(string $part): RawSlot
    {
        return Kinds::once(self::class.$part, static fn (): RawSlot => new RawSlot(match ($part) {
            'when' => new OneShape(
                static fn (): array => array_map(static fn (string $trigger): Shape => $trigger::shape(), Triggers::all()),
            ),
            'onlyIf' => new ConditionSlot(true),
            'fires' => new OneShape(
                static fn (): array => array_map(static fn (string $guard): Shape => $guard::shape(), RepeatGuards::all()),
            ),
            'never' => Limits::shape(),
            'line' => new LineSlot,
            default => new ConditionSlot,
        }));
    }
}
