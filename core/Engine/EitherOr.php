<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Condition\Reasoning;
use VividLedger\Rule\Rule;

/**
 * In which order the rules of an either/or set are asked: one whose every match another would take too comes before that other,
 * wherever they stand in the list. So of "over 12 %" and "over 30 %" the narrower range takes what it can. What is not certain
 * to be narrower stays in the order the administrator set.
 */
final class EitherOr
{
    /** @var ?\WeakMap<Rule, \WeakMap<Rule, bool>> what was found out already */
    private static ?\WeakMap $known = null;

    /**
     * @param  iterable<Rule>  $rules  in the order the administrator set
     * @return iterable<Rule>
     */
    public static function narrowestFirst(iterable $rules): iterable
    {
        $sets = [];
        $all = [];
        foreach ($rules as $rule) {
            $all[] = $rule;
            if ($rule->eitherOr !== '') {
                $sets["{$rule->eitherOr} {$rule->on}"][] = $rule;
            }
        }
        foreach ($sets as $set => $members) {
            if (count($members) > 1) {
                $sorted = self::sorted($members);
                $all = array_map(static function (Rule $rule) use ($set, &$sorted): Rule {
                    return "{$rule->eitherOr} {$rule->on}" === $set ? array_shift($sorted) ?? $rule : $rule;
                }, $all);
            }
        }

        return $all;
    }

    /** Whether every record that one takes is one that another would take, and not the other way round; false where nobody can tell. */
    public static function isNarrower(Rule $one, Rule $other): bool
    {
        $all = self::$known ??= self::nothing();
        /** @var \WeakMap<Rule, bool> $known */
        $known = $all[$one] ?? new \WeakMap;
        if (! isset($known[$other])) {
            $known[$other] = Reasoning::implies($one->condition, $other->condition)
                && ! Reasoning::implies($other->condition, $one->condition);
            $all[$one] = $known;
        }

        return $known[$other];
    }

    /** @return \WeakMap<Rule, \WeakMap<Rule, bool>> */
    private static function nothing(): \WeakMap
    {
        /** @var \WeakMap<Rule, \WeakMap<Rule, bool>> $nothing */
        $nothing = new \WeakMap;

        return $nothing;
    }

    /**
     * Each as far to the front as what is narrower than it lets it: being narrower goes round in no circle.
     *
     * @param  list<Rule>  $members
     * @return list<Rule>
     */
    private static function sorted(array $members): array
    {
        $sorted = [];
        while ($members !== []) {
            foreach ($members as $place => $rule) {
                $waits = array_filter($members, static fn (Rule $other): bool => $other !== $rule && self::isNarrower($other, $rule));
                if ($waits === []) {
                    $sorted[] = $rule;
                    unset($members[$place]);

                    continue 2;
                }
            }

            return [...$sorted, ...array_values($members)];
        }

        return $sorted;
    }
}
