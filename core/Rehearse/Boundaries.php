<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Condition\Comparison;
use VividLedger\Condition\Given\Given;
use VividLedger\Condition\Tree;
use VividLedger\Engine\Facts;
use VividLedger\Proofread\Regions;
use VividLedger\Record\Display;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Path;
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
        foreach (Tree::leaves($rule->condition) as $leaf) {
            $path = $leaf instanceof Comparison && $leaf->left instanceof Path && $leaf->left->hops === [] ? $leaf->left : null;
            if ($path === null || ! $path->field->isSettable() || array_filter($leaf->operands, static fn (mixed $operand): bool => $operand instanceof Given) !== []) {
                continue;
            }
            foreach (Regions::of($path, [$leaf]) ?? [] as $region) {
                // Number 0 stands for somebody who is named nowhere.
                if ($region->value === 0 || ($region->value === null && $path->field->required)) {
                    continue;
                }
                $name = $path->field->name;
                $value = $region->isOtherText ? 'something else' : $display->of($path->field, $region->value);
                $script = new Script($base->with($type->withComputed(array_replace($base->values, [$name => $region->value]))), new Opening(
                    $opening->kind, $opening->at, array_filter($opening->was, static fn (mixed $was, string $field): bool => $field !== $name || $was !== $region->value, ARRAY_FILTER_USE_BOTH),
                    array_key_exists($name, $opening->set) ? array_replace($opening->set, [$name => $region->value]) : $opening->set, $opening->text, $opening->related,
                ));
                $cases["{$name} {$value}"] = [$region->value === null ? "{$path->field->label} is empty" : "{$path->field->label} is {$value}", $script];
            }
        }

        return array_slice(array_values($cases), 0, self::MOST);
    }
}
