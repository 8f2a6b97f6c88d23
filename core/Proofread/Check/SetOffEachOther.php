<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Condition\All;
use VividLedger\Condition\Condition;
use VividLedger\Condition\None;
use VividLedger\Condition\Reasoning;
use VividLedger\Condition\Statement;
use VividLedger\Condition\Tree;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Proofread\Starts;
use VividLedger\Rule\Line\Written;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\WatchesFields;
use VividLedger\Schema\Path;
use VividLedger\Words\Words;

/** Rules that set each other off, round and round. The engine stops such a chain; it is hardly meant all the same. */
final class SetOffEachOther implements Check
{
    private const LONGEST = 4;

    public function remarks(RuleAmongOthers $among): array
    {
        $way = $this->wayBack($among, $among->rule, [$among->rule->id => true], []);
        if ($way === null) {
            return [];
        }
        $said = Words::say('It sets {label}', label: $this->label($among, $way[0][0]));
        foreach ($way as $index => [, $next]) {
            $last = $index === count($way) - 1;
            $said .= $last ? Words::say(', which sets this rule off again')
                : Words::say(
                    ', which sets off ‘{next}’, which sets {label}',
                    next: $next->name,
                    label: $this->label($among, $way[$index + 1][0]),
                );
        }

        return [
            new Remark(
                Level::Look,
                '/lines',
                'cycle',
                "{$said}.",
                Words::say('Narrow what one of them waits for, or let one fire only when its conditions become true.'),
            ),
        ];
    }

    /**
     * @param  array<int, true>  $seen
     * @param  list<array{Written, Rule}>  $way
     * @return ?list<array{Written, Rule}> what is written and which rule that sets off, step by step, back to where it began
     */
    private function wayBack(RuleAmongOthers $among, Rule $from, array $seen, array $way): ?array
    {
        if (count($way) >= self::LONGEST) {
            return null;
        }
        $last = $way === [] ? null : $way[count($way) - 1][0];
        foreach ($among->written($from) as $written) {
            // Set to what it has just been set to, a field does not change.
            if ($last !== null && $written == $last && $written->isFixed) {
                continue;
            }
            foreach ($this->setOff($among, $from, $written) as $next) {
                if ($next->id === $among->rule->id) {
                    // Its own change is no news to a rule, so it takes another to come round.
                    if ($way !== []) {
                        return [...$way, [$written, $next]];
                    }
                } elseif (! isset($seen[$next->id])) {
                    $back = $this->wayBack($among, $next, $seen + [$next->id => true], [...$way, [$written, $next]]);
                    if ($back !== null) {
                        return $back;
                    }
                }
            }
        }

        return null;
    }

    /** @return list<Rule> those that what a rule writes can set off */
    private function setOff(RuleAmongOthers $among, Rule $from, Written $written): array
    {
        $still = $written->isOwn ? $this->stillHolds($among, $from) : [];
        $field = $among->schema->types[$written->type]->field($written->field);
        $found = [];
        foreach ([...$among->others, $among->rule] as $rule) {
            $watch = $rule->watch();
            // What has fired for a record and remembers it does not come round for ever.
            if ($rule->guard->remembers() || $field === null || $rule->on !== $written->type || $watch->type !== $written->type
                || ! ($watch->fields === null || in_array($written->field, $watch->fields, true))) {
                continue;
            }
            $arrival = $rule->trigger instanceof WatchesFields ? $rule->trigger->arrival() : null;
            if ($written->isFixed && $arrival !== null && $arrival[0]->name === $written->field && $written->value !== $arrival[1]) {
                continue;
            }
            $value = $written->isFixed ? [Starts::is($field, $written->value)] : [];
            if (Reasoning::canHold(new All([Starts::condition($rule), ...$value, ...$still, ...$this->unchanged($among, $from, $rule)]))) {
                $found[] = $rule;
            }
        }

        return $found;
    }

    /** @return list<Condition> that fields which a rule does not write have not changed, where another rule asks for it */
    private function unchanged(RuleAmongOthers $among, Rule $from, Rule $next): array
    {
        $fields = array_map(static fn (Written $written): string => $written->field, $among->written($from));
        $unchanged = array_filter(Tree::statements($next->condition), static function (Statement $statement) use ($fields): bool {
            $changed = Tree::changed($statement);

            return $changed !== null && ! in_array($changed, $fields, true);
        });

        return array_map(static fn (Statement $statement): Condition => new None([$statement]), array_values($unchanged));
    }

    /** @return list<Condition> what of a rule's conditions holds on after its lines, because they write nothing that it reads */
    private function stillHolds(RuleAmongOthers $among, Rule $from): array
    {
        $fields = array_map(static fn (Written $written): string => $written->field, $among->written($from));

        return array_values(array_filter(Tree::together($from->condition), static function (Condition $part) use ($fields): bool {
            return ! Tree::isOfChange($part) && ! array_filter(
                $part->paths(),
                static fn (Path $path): bool => in_array($path->first()->name, $fields, true) || $path->hops !== [],
            ) && $part->paths() !== [];
        }));
    }

    private function label(RuleAmongOthers $among, Written $written): string
    {
        return $among->schema->types[$written->type]->field($written->field)->label ?? $written->field;
    }
}
