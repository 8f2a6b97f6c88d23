<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Condition\ConditionSlot;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Timing\Timings;
use VividLedger\Shape\Json;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Length;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\Typed;

/** A line with its time, its own condition and its name: "After 3 days: Remind the owner “Look”, only if Status is Open". */
final readonly class LineSlot implements Slot
{
    private const BESIDES = ['at', 'onlyIf', 'lapses', 'tooLate', 'key', 'off'];

    private const IF = [
        'only if', 'but only if', 'if', 'only when', 'provided', 'provided that', 'as long as', 'but only when', 'in case', 'where',
    ];

    private const LAPSES = ['lapses when', 'it lapses when', 'lapsing when', 'lapses once', 'not needed once', 'no longer needed when',
        'unless by then', 'moot when', 'moot once', 'dropped when'];

    public function print(mixed $json, Scope $scope, array $around): string
    {
        $line = is_array($json) ? $json : [];
        $inner = array_diff_key($line, array_flip(self::BESIDES));
        $text = self::lines()->print($inner, $scope, []) ?? RawSlot::raw($inner);
        $at = $line['at'] ?? null;
        if ($at !== null && $at !== []) {
            $said = (new RawSlot(Timings::slot()))->print($at, $scope, []);
            $text = mb_strtoupper(mb_substr($said, 0, 1)).mb_substr($said, 1).": {$text}";
        }
        $text .= isset($line['onlyIf']) ? ', only if '.(new RawSlot(new ConditionSlot))->print($line['onlyIf'], $scope, []) : '';
        $text .= isset($line['lapses']) ? ', lapses when '.(new RawSlot(new ConditionSlot))->print($line['lapses'], $scope, []) : '';
        $text .= isset($line['tooLate']) ? ', too late after '.(new RawSlot(new Length))->print($line['tooLate'], $scope, []) : '';
        $text .= is_string($line['key'] ?? null) ? ', known as '.Typed::quote($line['key']) : '';

        return $text.(($line['off'] ?? null) === true ? ', switched off' : '');
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $bullet = $typed->pattern($at, '(?:[-*•]\s+|\d+[.)]\s+|then\s+|please\s+|and\s+then\s+)', '', 3);
        $at = $bullet[1] ?? $at;
        $raw = RawSlot::parseRaw($typed, $at);
        $found = [];
        foreach ($raw !== null ? [new Parsed([], $at)] : self::before($typed, $at, $scope) as $before) {
            $besides = is_array($before->json) ? $before->json : [];
            foreach ($raw !== null ? [$raw] : self::lines()->parse($typed, $before->end, $scope, []) as $line) {
                array_push($found, ...self::behind($typed, $line->costlier($before->cost), $scope, $besides));
            }
        }

        return Parsed::distinct($found);
    }

    public function schema(): array
    {
        return Json::ref('line');
    }

    /** @return list<Parsed> nothing, the time of the line, or its condition, each with the place behind it */
    private static function before(Typed $typed, int $at, Scope $scope): array
    {
        $found = [new Parsed([], $at)];
        foreach ((new RawSlot(Timings::slot()))->parse($typed, $at, $scope, []) as $timing) {
            $found[] = new Parsed(['at' => $timing->json], self::comma($typed, $timing->end), $timing->cost);
        }
        foreach ($typed->isLoose ? Timings::all() : [] as $nth => $timing) {
            [$first] = $timing::parted() + [null];
            foreach ($first === null ? [] : $first->parse($typed, $at, $scope, []) as $half) {
                $found[] = new Parsed(['at' => $half->json, '…' => $nth], self::comma($typed, $half->end), $half->cost);
            }
        }
        foreach ($typed->isLoose ? ['at once', 'immediately', 'straight away', 'right away'] : ['at once'] as $nth => $words) {
            $end = $typed->words($at, $words, $nth === 0 ? 0 : 3);
            if ($end !== null) {
                $found[] = new Parsed([], self::comma($typed, $end), min(1, $nth));
            }
        }
        foreach ($typed->isLoose ? self::condition($typed, $at, $scope) : [] as $condition) {
            $found[] = new Parsed(['onlyIf' => $condition->json], self::comma($typed, $condition->end), $condition->cost + 1);
        }

        return $found;
    }

    private static function comma(Typed $typed, int $at): int
    {
        $comma = $typed->pattern($at, '[:,]', ':', 0);
        $then = $typed->words($comma[1] ?? $at, 'then', 3);

        return $then ?? $comma[1] ?? $at;
    }

    /**
     * What stands behind a line, in any order.
     *
     * @param  array<mixed>  $besides
     * @return list<Parsed>
     */
    private static function behind(Typed $typed, Parsed $line, Scope $scope, array $besides): array
    {
        $own = is_array($line->json) ? array_diff_key($line->json, ['' => true]) : [];
        $found = [];
        $open = [new Parsed($besides, $line->end, $line->cost)];
        while ($open !== []) {
            $longer = [];
            foreach ($open as $one) {
                $had = is_array($one->json) ? $one->json : [];
                if (! isset($had['…'])) {
                    $found[] = $one->as($own + array_diff_key($had, ['…' => true]));
                }
                foreach (self::further($typed, $one->end, $scope, $had) as $next) {
                    $longer[] = new Parsed((is_array($next->json) ? $next->json : []) + $had, $next->end, $one->cost + $next->cost);
                }
            }
            $open = Parsed::distinct($longer);
        }

        return $found;
    }

    /**
     * @param  array<mixed>  $had
     * @return list<Parsed>
     */
    private static function further(Typed $typed, int $at, Scope $scope, array $had): array
    {
        // Behind a semicolon comes another line: its time is not that of this one.
        if ($typed->pattern($at, ';', '', 3) !== null) {
            return [];
        }
        $comma = $typed->pattern($at, ',', ',');
        $at = $comma[1] ?? $at;
        $found = [];
        foreach (isset($had['onlyIf']) ? [] : self::condition($typed, $at, $scope) as $condition) {
            $found[] = $condition->as(['onlyIf' => $condition->json]);
        }
        foreach (isset($had['lapses']) ? [] : self::led($typed, $at, $scope, self::LAPSES) as $condition) {
            $found[] = $condition->as(['lapses' => $condition->json]);
        }
        $late = isset($had['tooLate']) ? null : $typed->words($at, 'too late after');
        foreach ($late === null ? [] : (new RawSlot(new Length))->parse($typed, $late, $scope, []) as $length) {
            $found[] = $length->as(['tooLate' => $length->json]);
        }
        $key = isset($had['key']) ? null : $typed->words($at, 'known as');
        $name = $key === null ? null : $typed->quoted($key);
        if ($name !== null) {
            $found[] = new Parsed(['key' => $name[0]], $name[1]);
        }
        $off = isset($had['off']) ? null : $typed->words($at, 'switched off');
        if ($off !== null) {
            $found[] = new Parsed(['off' => true], $off);
        }
        [, $second] = is_int($had['…'] ?? null) ? Timings::all()[$had['…']]::parted() + [null, null] : [null, null];
        foreach ($second === null ? [] : $second->parse($typed, $at, $scope, []) as $half) {
            $both = (is_array($had['at'] ?? null) ? $had['at'] : []) + (is_array($half->json) ? $half->json : []);
            $found[] = $half->as(['at' => $both, '…' => null]);
        }
        foreach (isset($had['at']) ? [] : (new RawSlot(Timings::slot()))->parse($typed, $at, $scope, []) as $timing) {
            $found[] = $timing->as(['at' => $timing->json]);
        }

        return $found;
    }

    /** @return list<Parsed> */
    private static function condition(Typed $typed, int $at, Scope $scope): array
    {
        return [...self::led($typed, $at, $scope, self::IF), ...ConditionSlot::unless($typed, $at, $scope)];
    }

    /**
     * @param  non-empty-list<string>  $words  that lead to a condition, the one that is printed first
     * @return list<Parsed>
     */
    private static function led(Typed $typed, int $at, Scope $scope, array $words): array
    {
        $found = [];
        foreach ($typed->isLoose ? $words : [$words[0]] as $nth => $one) {
            $behind = $typed->words($at, $one, $nth === 0 ? 0 : 3);
            foreach ($behind === null ? [] : (new RawSlot(new ConditionSlot))->parse($typed, $behind, $scope, []) as $condition) {
                $found[] = $condition->costlier(min(1, $nth));
            }
        }

        return $found;
    }

    private static function lines(): OneShape
    {
        return Kinds::once(self::class, static fn (): OneShape => new OneShape(static fn (): array => array_map(
            static fn (string $line): Shape => $line::shape(),
            Lines::all(),
        )));
    }
}
