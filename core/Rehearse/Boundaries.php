<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Condition\Regions;
use VividLedger\Condition\Tree;
use VividLedger\Facts\Facts;
use VividLedger\Formula\ComputedFields;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Opening;
use VividLedger\Rule\Trigger\WaitsForDate;
use VividLedger\Schema\Schema;

/** Proposes the cases at a rule's boundaries: just under, at and just over each value it names, the day before and after, and empty. */
final readonly class Boundaries
{
    private const MOST = 24;

    public function __construct(private Schema $schema, private \DateTimeZone $zone)
    {
    }

    /** @return list<array{string, Script}> what each case is called, and how it is played */
    public function of(Rule $rule, Record $ground, Facts $facts, \DateTimeImmutable $now): array
    {
        $type = $this->schema->types[$rule->on];
        $proposer = new Proposer($this->schema, $this->zone);
        $base = $proposer->madeUp($rule, $ground, $facts);
        $opening = $proposer->opening($rule, $base, $facts, $now);
        $display = new Display($facts, $this->zone);
        $cases = [['All conditions hold', new Script($base, $opening)]];
        foreach (Tree::statements($rule->condition) as $statement) {
            $atom = $statement->atom();
            $path = $atom->path;
            // What a value does not decide has no boundary.
            if ($path === null || $path->hops !== [] || ! $path->field->isSettable() || $atom->test === null) {
                continue;
            }
            foreach (Regions::of($path, $atom->turns) ?? [] as $region) {
                // Number 0 stands for somebody who is named nowhere.
                if ($region->value === 0 || ($region->value === null && $path->field->required)) {
                    continue;
                }
                $name = $path->field->name;
                $value = $region->isOtherText ? 'something else' : $display->of($path->field, $region->value);
                $values = ComputedFields::with($type, array_replace($base->values, [$name => $region->value]));
                $script = new Script($base->with($values), new Opening(
                    kind: $opening->kind, at: $opening->at,
                    was: array_filter(
                        $opening->was,
                        static fn (mixed $was, string $field): bool => $field !== $name || $was !== $region->value,
                        ARRAY_FILTER_USE_BOTH,
                    ),
                    set: array_key_exists($name, $opening->set) ? array_replace(
                        $opening->set,
                        [$name => $region->value],
                    ) : $opening->set,
                    text: $opening->text, related: $opening->related,
                ));
                $cases["{$name} {$value}"] = [
                    $region->value === null ? "{$path->field->label} is empty" : "{$path->field->label} is {$value}", $script,
                ];
            }
        }

        $byName = [];
        foreach ([...array_values($cases), ...$this->aroundTheDate($rule, $base, $opening, $display)] as $case) {
            $byName[$case[0]] ??= $case;
        }

        return array_slice(array_values($byName), 0, self::MOST);
    }

    /**
     * For a rule that a date sets off: the same moment on records whose date is a day earlier, a day later, and empty.
     *
     * @return list<array{string, Script}>
     */
    private function aroundTheDate(Rule $rule, Record $base, Opening $opening, Display $display): array
    {
        $field = $rule->trigger instanceof WaitsForDate ? $rule->trigger->arriving()->field : null;
        $date = $field === null ? null : $opening->set[$field->name] ?? $base->value($field->name);
        if ($field === null || ! is_string($date) || ! $field->isSettable()) {
            return [];
        }
        $moved = static fn (string $by): string => strlen($date) === 10 ? (new \DateTimeImmutable($date))->modify($by)->format('Y-m-d')
            : Value::instantText(
                (new \DateTimeImmutable($date))->modify($by),
            );
        $cases = [];
        foreach (['a day earlier' => $moved('-1 day'), 'a day later' => $moved('+1 day')] as $how => $value) {
            $cases["{$field->label} is {$how}, {$display->of($field, $value)}"] = $value;
        }
        if (! $field->required) {
            $cases["{$field->label} is empty"] = null;
        }
        $scripts = [];
        foreach ($cases as $name => $value) {
            $scripts[] = [
                $name,
                new Script(
                    $base,
                    new Opening(
                        $opening->kind,
                        $opening->at,
                        $opening->was,
                        [$field->name => $value] + $opening->set,
                        $opening->text,
                        from: $opening->from,
                    ),
                ),
            ];
        }

        return $scripts;
    }
}
