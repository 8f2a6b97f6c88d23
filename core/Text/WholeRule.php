<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Rule\Cases\CasePart;
use VividLedger\Rule\Cases\IfCase;
use VividLedger\Rule\Line\Lines;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A whole rule in one sentence, its parts in the order in which people say them. */
final readonly class WholeRule implements Slot
{
    /** What can stand between two parts. */
    private const BETWEEN = ',\s*(?:and\s+then|and|then|but|also)\b|[,;:.]|(?:and\s+then|and|then|but)\b';

    private const MOST_PARTS = 40;

    /** A mark: the conditions were said behind a line. */
    private const BEHIND = 'behind';

    /** It is only heard; it is printed as a page. */
    public function print(mixed $json, Scope $scope, array $around): null
    {
        return null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $open = array_map(
            static fn (Parsed $when): Parsed => $when->as(['when' => $when->json]),
            Parts::parse('when', $typed, $at, $scope),
        );
        $found = [];
        for ($count = 0; $open !== [] && $count < self::MOST_PARTS; $count++) {
            $longer = [];
            foreach ($open as $rule) {
                $had = is_array($rule->json) ? $rule->json : [];
                if (isset($had['lines'])) {
                    $found[] = $rule;
                }
                foreach (self::next($typed, $rule->end, $scope, $had) as $next) {
                    $longer[] = new Parsed($next->json, $next->end, $rule->cost + $next->cost);
                }
            }
            $open = Parsed::distinct($longer);
        }

        return $found;
    }

    public function schema(): array
    {
        return [];
    }

    /**
     * What was said so far, where an "otherwise" follows: its "if" stood with the last line, or before all of them.
     *
     * @param  list<mixed>  $lines
     * @param  array<mixed>  $had
     * @return ?array{list<mixed>, array<mixed>} null where there is nothing that it could be the other case of
     */
    private static function asCases(mixed $line, array $lines, array $had): ?array
    {
        $kindOf = static fn (mixed $one): string => is_array($one) && is_string($one['kind'] ?? null) ? $one['kind'] : '';
        $headings = Lines::headings();
        $heading = $headings[$kindOf($line)] ?? null;
        $part = $heading === null ? CasePart::First : $heading::part();
        if ($part === CasePart::First || array_filter($lines, static fn (mixed $one): bool => isset($headings[$kindOf($one)])) !== []) {
            return [$lines, $had];
        }
        $last = $lines[count($lines) - 1] ?? null;
        if (is_array($last) && isset($last['onlyIf'])) {
            $own = is_array($last['onlyIf']) && isset($last['onlyIf']['of']) ? $last['onlyIf']
                : ['kind' => 'all', 'of' => [$last['onlyIf']]];
            $if = ['kind' => IfCase::kind(), 'that' => $own];

            return [[...array_slice($lines, 0, -1), $if, array_diff_key($last, ['onlyIf' => true])], $had];
        }

        $all = $had['onlyIf'] ?? null;
        if ($lines === [] || ! is_array($all) || ($had[''] ?? null) === self::BEHIND) {
            return null;
        }

        return [[['kind' => IfCase::kind(), 'that' => $all], ...$lines], array_diff_key($had, ['onlyIf' => true])];
    }

    /**
     * @param  array<mixed>  $had
     * @return list<Parsed> the rule with one part more
     */
    private static function next(Typed $typed, int $at, Scope $scope, array $had): array
    {
        if ($typed->isDone($at)) {
            return [];
        }
        $between = $typed->pattern($at, self::BETWEEN, ',', 3);
        $found = [];
        // "When it is closed and it is urgent" goes on with a condition by the very word that stands between.
        foreach ($between === null || isset($had['onlyIf']) ? [] : Parts::parse('onlyIf', $typed, $at, $scope) as $one) {
            $found[] = $one->as($had + ['onlyIf' => $one->json]);
        }
        $at = $between[1] ?? $at;
        foreach (['onlyIf', 'fires', 'until', 'never'] as $part) {
            // Of how often it fires people say no more than the words themselves: "…, only once".
            foreach (isset($had[$part]) ? [] : Parts::parse($part, $typed, $at, $scope, isBare: $part === 'fires') as $one) {
                $mark = $part === 'onlyIf' && isset($had['lines']) ? ['' => self::BEHIND] : [];
                $found[] = $one->as($had + [$part => $one->json] + $mark);
            }
        }
        $lines = is_array($had['lines'] ?? null) ? array_values($had['lines']) : [];
        foreach (Parts::slot('line')->parse($typed, $at, $scope, []) as $line) {
            $so = self::asCases($line->json, $lines, $had);
            if ($so !== null) {
                $found[] = $line->as(['lines' => [...$so[0], $line->json]] + $so[1]);
            }
        }

        return $found;
    }
}
