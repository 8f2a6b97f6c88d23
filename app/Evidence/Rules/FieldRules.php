<?php

declare(strict_types=1);

namespace App\Evidence\Rules;

use App\Store\Types\SchemaStore;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Line\Writes;
use VividLedger\Rule\Line\Written;

/** Which rules in force could ever change a field. */
final readonly class FieldRules
{
    public function __construct(private RulesInForce $rules, private SchemaStore $schemas)
    {
    }

    /** @return list<array{rule: int, name: string, line: string}> in the order of the rules */
    public function of(string $type, string $field): array
    {
        $found = [];
        foreach ($this->rules->all() as $rule) {
            $lines = array_filter($rule->lines, fn (Placed $placed): bool => $placed->line instanceof Writes && array_filter(
                $placed->line->writes(
                    $this->schemas->schema()->types[$rule->on],
                ), static fn (Written $written): bool => $written->type === $type && $written->field === $field,
            ) !== []);
            foreach ($lines as $placed) {
                $found[] = ['rule' => $rule->id, 'name' => $rule->name, 'line' => $placed->said];
            }
        }

        return $found;
    }
}
