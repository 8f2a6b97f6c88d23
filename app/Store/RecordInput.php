<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Person;
use App\Models\StoredRecord;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Checks the values that came from outside against the fields they are for. */
final readonly class RecordInput
{
    public function __construct(
        private SchemaStore $schemas,
        private PeopleStore $people,
    ) {
    }

    /**
     * @param  array<array-key, mixed>  $input  raw values by field name
     * @param  ?Record  $before  null for a new record, whose required fields then have to be given
     * @return array<string, string|int|bool|null> the values that differ from the record, normalised
     *
     * @throws Refused with a problem for every value that cannot be taken
     */
    public function checked(RecordType $type, array $input, ?Record $before): array
    {
        $values = [];
        $problems = [];
        foreach ($input as $name => $raw) {
            $field = $type->field((string) $name);
            try {
                if ($field === null) {
                    throw new InvalidValue('unknown_field', "{$type->label} has no field ‘{$name}’.");
                }
                if (! $field->isSettable()) {
                    throw new InvalidValue(
                        'not_settable',
                        $field->system ? "{$field->label} is kept by the application." : "{$field->label} is computed from other fields.",
                    );
                }
                $value = Value::of($field, $field->type === FieldType::Person ? $this->person($raw) : $raw);
                if ($value === null && $field->required) {
                    throw new InvalidValue('required', "{$field->label} has to be filled in.");
                }
                if ($before === null || $before->value($field->name) !== $value) {
                    $this->mustExist($field, $value);
                    $values[$field->name] = $value;
                }
            } catch (InvalidValue $invalid) {
                $problems[] = ['at' => "/values/{$name}", 'code' => $invalid->reason, 'message' => $invalid->getMessage()];
            }
        }
        foreach ($before === null ? $type->ownFields() : [] as $field) {
            if ($field->required && ! array_key_exists($field->name, $input)) {
                $problems[] = ['at' => "/values/{$field->name}", 'code' => 'required', 'message' => "{$field->label} has to be filled in."];
            }
        }
        if ($problems !== []) {
            throw new Refused(
                'invalid_values',
                count($problems) === 1 ? $problems[0]['message'] : count($problems).' values cannot be taken.',
                RefusedFor::Invalid,
                $problems,
            );
        }

        return $values;
    }

    /** People come by id or by handle. */
    private function person(mixed $raw): mixed
    {
        return is_string($raw) && preg_match('/^[a-z]/i', $raw) === 1 ? ($this->people->idOf($raw) ?? 0) : $raw;
    }

    private function mustExist(Field $field, string|int|bool|null $value): void
    {
        if ($value === null) {
            return;
        }
        if ($field->type === FieldType::Person && ! Person::rows()->where('id', $value)->where('active', true)->exists()) {
            throw new InvalidValue('unknown_value', "{$field->label}: there is no such person at work here.");
        }
        if ($field->type === FieldType::Reference) {
            $target = $this->schemas->schema()->type((string) $field->target);
            if ($target === null || ! StoredRecord::rowsOf($target)->where('id', $value)->exists()) {
                throw new InvalidValue('unknown_value', "{$field->label}: there is no such ".($target?->inSentence() ?? 'record').'.');
            }
        }
    }
}
