<?php

declare(strict_types=1);

namespace VividLedger\Formula;

use VividLedger\Record\InvalidValue;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Words\Words;

/** The formula fields of a record type, read at the first use. What cannot be computed is empty. */
final class ComputedFields
{
    /** @var ?list<array{Field, Formula}> */
    private ?array $formulas = null;

    /** @var ?\WeakMap<RecordType, self> */
    private static ?\WeakMap $known = null;

    private function __construct(private readonly RecordType $type)
    {
    }

    /**
     * The values with those of the formula fields computed from the others.
     *
     * @param  array<string, string|int|bool|null>  $values
     * @return array<string, string|int|bool|null>
     */
    public static function with(RecordType $type, array $values): array
    {
        /** @var \WeakMap<RecordType, self> $known */
        $known = self::$known ??= new \WeakMap;

        return ($known[$type] ??= new self($type))->in($values);
    }

    /**
     * @param  array<string, string|int|bool|null>  $values
     * @return array<string, string|int|bool|null>
     */
    private function in(array $values): array
    {
        foreach ($this->formulas ??= $this->read() as [$field, $formula]) {
            try {
                $values[$field->name] = $formula->ofValues($values, $field);
            } catch (InvalidValue) {
                $values[$field->name] = $field->type === FieldType::Tick ? false : null;
            }
        }

        return $values;
    }

    /**
     * Why a formula cannot stand in a field; null when it can. It reads nothing but fields of its record that are not
     * formulas themselves, and no clock, so that what is kept is always right.
     */
    public static function trouble(RecordType $type, Field $field): ?string
    {
        try {
            $formula = self::formula($type, $field);
        } catch (FormulaError $error) {
            return "{$error->getMessage()} (character {$error->position})";
        }
        foreach ($formula->term->paths() as $path) {
            if ($path->hops !== [] || $path->field->formula !== null) {
                return Words::say(
                    '{other} cannot be part of it: a formula field reads only plain fields of its own record.',
                    other: $path->label(),
                );
            }
        }

        return match (true) {
            $formula->term->uses('today') => Words::say('A formula field cannot read the clock.'),
            ! $formula->fits($field) => Words::say('It gives {kind}, which does not fit.', kind: $formula->term->type->value),
            default => null,
        };
    }

    /** @return list<array{Field, Formula}> */
    private function read(): array
    {
        $formulas = [];
        foreach ($this->type->fields as $field) {
            if ($field->formula !== null && self::trouble($this->type, $field) === null) {
                $formulas[] = [$field, self::formula($this->type, $field)];
            }
        }

        return $formulas;
    }

    private static function formula(RecordType $type, Field $field): Formula
    {
        return Formula::of((string) $field->formula, new Schema([$type->name => $type]), $type, new \DateTimeZone('UTC'));
    }
}
