<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use Brick\Math\BigDecimal;
use VividLedger\Condition\All;
use VividLedger\Condition\Reasoning;
use VividLedger\Condition\Region;
use VividLedger\Condition\Regions;
use VividLedger\Condition\Tree;
use VividLedger\Engine\EitherOr;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Path;
use VividLedger\Words\Words;

/** Ranges of an either/or set that overlap without one being inside the other, and amounts between them that none takes. */
final class RangesOfSet implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $own = $among->rule;
        $set = $own->eitherOr === '' ? [] : array_values(array_filter(
            $among->others,
            static fn (Rule $other): bool => $other->eitherOr === $own->eitherOr && $other->on === $own->on,
        ));
        if ($set === []) {
            return [];
        }

        return [...$this->overlaps($own, $set, $among), ...$this->gaps($own, $set)];
    }

    /**
     * @param  non-empty-list<Rule>  $set
     * @return list<Remark>
     */
    private function overlaps(Rule $own, array $set, RuleAmongOthers $among): array
    {
        $remarks = [];
        foreach ($set as $other) {
            $both = new All([$own->condition, $other->condition]);
            $path = $this->measure([$own, $other]);
            if ($path === null || EitherOr::isNarrower($own, $other) || EitherOr::isNarrower($other, $own)
                || Reasoning::implies($own->condition, $other->condition)) {
                continue;
            }
            $example = Reasoning::example($both);
            if ($example !== null) {
                $isFirst = (array_search($other, $among->others, true) ?: 0) >= $among->position;
                $taker = $isFirst ? "‘{$own->name}’" : "‘{$other->name}’";
                $value = $example[$path->name()] ?? '';
                $remarks[] = new Remark(
                    Level::Look,
                    '/onlyIf',
                    'ranges_overlap',
                    Words::say(
                        'Its range and that of ‘{other}’ overlap, at {path} {value}: {taker} takes it, which stands first.',
                        other: $other->name,
                        path: $path->label(),
                        value: (string) $value,
                        taker: $taker,
                    ),
                    Words::say('Let one range end where the other begins.'),
                );
            }
        }

        return $remarks;
    }

    /**
     * @param  non-empty-list<Rule>  $set
     * @return list<Remark>
     */
    private function gaps(Rule $own, array $set): array
    {
        $all = [$own, ...$set];
        $path = $this->measure($all);
        $regions = $path === null ? null : Regions::of($path, $this->turns($all, $path));
        if ($path === null || $regions === null) {
            return [];
        }
        $values = array_values(array_filter(array_map(static fn (Region $region): mixed => $region->value, $regions), is_string(...)));
        usort($values, static fn (string $one, string $other): int => BigDecimal::of($one)->compareTo($other));
        $taken = array_map(static fn (string $value): bool => array_filter(
            $all,
            static fn (Rule $rule): bool => Reasoning::example($rule->condition, [$path->name() => $value], [$path->name()]) !== null,
        ) !== [], $values);
        $first = array_search(true, $taken, true);
        $last = $taken === [] ? false : array_search(true, array_reverse($taken, true), true);
        $gap = $first === false || $last === false ? false : array_search(false, array_slice($taken, $first, $last - $first, true), true);

        return $gap === false ? [] : [new Remark(
            Level::Look,
            '/onlyIf',
            'range_gap',
            Words::say(
                'No rule of “{eitherOr}” takes {path} {values}, although the ranges lie on both sides of it.',
                eitherOr: $own->eitherOr,
                path: $path->label(),
                values: $values[$gap],
            ),
            Words::say('Let one range begin where the other ends.'),
        )];
    }

    /**
     * The one amount that all of them measure; null when there is none, or more than one.
     *
     * @param  list<Rule>  $rules
     */
    private function measure(array $rules): ?Path
    {
        $measured = null;
        foreach ($rules as $rule) {
            $own = [];
            foreach (Tree::statements($rule->condition) as $statement) {
                $path = $statement->atom()->path;
                if ($path !== null && $path->field->type->isDecimal()) {
                    $own[$path->name()] = $path;
                }
            }
            $measured = $measured === null ? $own : array_intersect_key($measured, $own);
        }

        return count($measured ?? []) === 1 ? array_values($measured)[0] : null;
    }

    /**
     * @param  list<Rule>  $rules
     * @return list<string|int|bool>
     */
    private function turns(array $rules, Path $path): array
    {
        $turns = [];
        foreach ($rules as $rule) {
            foreach (Tree::statements($rule->condition) as $statement) {
                $atom = $statement->atom();
                if ($atom->path?->name() === $path->name()) {
                    array_push($turns, ...$atom->turns);
                }
            }
        }

        return $turns;
    }
}
