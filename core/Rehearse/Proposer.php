<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Condition\All;
use VividLedger\Condition\Condition;
use VividLedger\Condition\Reasoning;
use VividLedger\Facts\Facts;
use VividLedger\Facts\View;
use VividLedger\Formula\ComputedFields;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Opening;
use VividLedger\Rule\Trigger\Proposal;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** Proposes the first change of a rehearsal: one that starts the rule, wherever values can bring that about. */
final readonly class Proposer
{
    public function __construct(private Schema $schema, private \DateTimeZone $zone)
    {
    }

    public function opening(Rule $rule, Record $record, Facts $facts, \DateTimeImmutable $now): Opening
    {
        return $rule->trigger->opening(new Proposal(
            record: $record, type: $this->schema->types[$rule->on], condition: $rule->condition, facts: $facts, zone: $this->zone,
            now: $now, until: $now->modify('+'.Rehearsal::MOST_DAYS.' days'),
            meeting: fn (Condition $condition): array => $this->meeting($condition, $record, $this->schema->types[$rule->on], $facts),
            example: static fn (Condition $condition): array => Reasoning::example($condition) ?? [],
        ));
    }

    /**
     * Values of the record's own fields with which a condition holds, where they differ from those it has.
     *
     * @return array<string, string|int|bool|null>
     */
    public function meeting(Condition $condition, Record $record, RecordType $type, Facts $facts): array
    {
        $has = [];
        $fixed = [];
        $view = new View($record, $facts);
        foreach ($condition->paths() as $path) {
            $has[$path->name()] = $view->value($path);
            if ($path->hops !== [] || ! $path->field->isSettable()) {
                $fixed[] = $path->name();
            }
        }
        $example = Reasoning::example($condition, $has, $fixed) ?? Reasoning::example($condition, $has) ?? [];
        $set = [];
        foreach ($example as $name => $value) {
            $field = $type->field($name);
            // Number 0 stands for somebody who is named nowhere.
            if ($field !== null && $field->isSettable() && $value !== $record->value($name) && $value !== 0) {
                $set[$name] = $value;
            }
        }

        return $set;
    }

    /** A record that is made up to meet the rule, on the ground of another. */
    public function madeUp(Rule $rule, Record $ground, Facts $facts): Record
    {
        return $ground->with(
            ComputedFields::with($this->schema->types[$rule->on], array_replace(
                $ground->values,
                $this->meeting(new All([$rule->condition]), $ground, $this->schema->types[$rule->on], $facts),
            )),
        );
    }
}
