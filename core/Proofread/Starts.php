<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

use VividLedger\Condition\All;
use VividLedger\Condition\Comparison;
use VividLedger\Condition\Condition;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\WatchesFields;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/** What has to hold for a rule to fire, as far as values say it: its conditions, and the value its trigger waits for. */
final class Starts
{
    public static function condition(Rule $rule): Condition
    {
        $arrival = $rule->trigger instanceof WatchesFields ? $rule->trigger->arrival() : null;

        return $arrival === null ? $rule->condition : new All([$rule->condition, self::is(...$arrival)]);
    }

    /** A field of the record itself has a value. */
    public static function is(Field $field, string|int|bool|null $value): Condition
    {
        $kind = match (true) {
            $value === null => 'is_empty',
            $field->type === FieldType::Tick => $value === true ? 'ticked' : 'not_ticked',
            $field->type->isSet() => 'has_all',
            default => 'is',
        };
        $operands = match (true) {
            $value === null || is_bool($value) => [],
            $field->type->isSet() => \VividLedger\Record\Members::of($value),
            default => [$value],
        };

        return new Comparison(new Path([], $field), Operators::all()[$kind], $operands, "{$field->label} {$kind} ".json_encode($value));
    }
}
