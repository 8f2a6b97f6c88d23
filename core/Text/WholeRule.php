<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Typed;

/** A whole rule in one sentence, its parts in the order in which people say them. */
final readonly class WholeRule implements Slot
{
    /** What can stand between two parts. */
    private const BETWEEN = ',\s*(?:and\s+then|and|then|but|also)\b|[,;:.]|(?:and\s+then|and|then|but)\b';

    private const MOST_PARTS = 12;

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
                $found[] = $one->as($had + [$part => $one->json]);
            }
        }
        $lines = is_array($had['lines'] ?? null) ? array_values($had['lines']) : [];
        foreach (Parts::slot('line')->parse($typed, $at, $scope, []) as $line) {
            $found[] = $line->as(['lines' => [...$lines, $line->json]] + $had);
        }

        return $found;
    }
}
