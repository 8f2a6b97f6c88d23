<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Store\DomainError;
use App\Store\Import\KnownValues;
use App\Store\People\PeopleStore;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Query\Builder;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

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
     * @param  ?KnownValues  $known  what there is to refer to, where it was asked for already
     * @return array<string, string|int|bool|null> the values that differ from the record, normalised
     *
     * @throws DomainError with a problem for every value that cannot be taken
     */
    public function checked(RecordType $type, array $input, ?Record $before, ?KnownValues $known = null): array
    {
        $values = [];
        $problems = [];
        foreach ($input as $name => $raw) {
            $field = $type->field((string) $name);
            try {
                if ($field === null) {
                    throw new InvalidValue('unknown_field', Words::say('{type} has no field ‘{name}’.', type: $type->label, name: $name));
                }
                if (! $field->isSettable()) {
                    throw new InvalidValue(
                        'not_settable',
                        $field->formula === null ? Words::say('{field} is kept by the application.', field: $field->label)
                            : Words::say('{field} is computed from other fields.', field: $field->label),
                    );
                }
                $value = Value::of($field, $field->type === FieldType::Person ? $this->person($raw) : $raw);
                if ($value === null && $field->required) {
                    throw new InvalidValue('required', Words::say('{field} has to be filled in.', field: $field->label));
                }
                if ($before === null || $before->value($field->name) !== $value) {
                    self::mustBeOffered($field, $value, $before);
                    $this->mustExist($field, $value, $known);
                    $this->mustBeFree($type, $field, $value, $before, $known);
                    $values[$field->name] = $value;
                }
            } catch (InvalidValue $invalid) {
                $problems[] = ['at' => "/values/{$name}", 'code' => $invalid->reason, 'message' => $invalid->getMessage()];
            }
        }
        foreach ($before === null ? $type->ownFields() : [] as $field) {
            if ($field->required && $field->isSettable() && $field->default === null && ! array_key_exists($field->name, $input)) {
                $problems[] = ['at' => "/values/{$field->name}", 'code' => 'required', 'message' => Words::say(
                    '{field} has to be filled in.',
                    field: $field->label,
                )];
            }
        }
        array_push($problems, ...self::missingAtStage($type, $values, $before));
        if ($problems !== []) {
            throw new DomainError(
                'invalid_values',
                count($problems) === 1 ? $problems[0]['message'] : Words::say(
                    '{problems} values cannot be taken.',
                    problems: count($problems),
                ),
                RefusedFor::Invalid,
                $problems,
            );
        }

        return $values;
    }

    /**
     * The same for many rows, asking for all that they refer to at once.
     *
     * @param  list<RowToSave>  $rows
     * @param  array<int, Record>  $there  the records that are there already
     * @return list<array<string, string|int|bool|null>|DomainError> for each the values that differ, or why they cannot be taken
     */
    public function many(RecordType $type, array $rows, array $there): array
    {
        $known = KnownValues::of($this->schemas->schema(), $type, array_map(static fn (RowToSave $row): array => $row->values, $rows));
        $checked = [];
        foreach ($rows as $row) {
            $before = $row->id === null ? null : ($there[$row->id] ?? null);
            try {
                $checked[] = $row->id !== null && $before === null ? [] : $this->checked($type, $row->values, $before, $known);
            } catch (DomainError $refused) {
                $checked[] = $refused;
            }
        }

        return $checked;
    }

    /**
     * What a stage asks for. Who leaves the stage as it is, and does not empty the field, is not held up by what was missing before.
     *
     * @param  array<string, string|int|bool|null>  $values
     * @return list<array{at: string, code: string, message: string}>
     */
    private static function missingAtStage(RecordType $type, array $values, ?Record $before): array
    {
        $stage = $type->stage();
        if ($stage === null) {
            return [];
        }
        $at = array_key_exists($stage->name, $values) ? $values[$stage->name] : ($before?->value($stage->name) ?? $stage->default);
        $comes = $before === null || array_key_exists($stage->name, $values);
        $problems = [];
        foreach ($type->fields as $name => $field) {
            $isAsked = is_string($at) && in_array($at, $field->requiredAt, true) && ($comes || array_key_exists($name, $values));
            $value = array_key_exists($name, $values) ? $values[$name] : ($before === null ? $field->begun() : $before->value($name));
            if ($isAsked && ($value === null || $value === false)) {
                $where = $stage->choice($at)->label ?? $at;
                $problems[] = [
                    'at' => "/values/{$name}", 'code' => 'required_at_stage',
                    'message' => Words::say(
                        '{field} has to be filled in when {stage} is {where}.',
                        field: $field->label,
                        stage: $stage->label,
                        where: $where,
                    ),
                ];
            }
        }

        return $problems;
    }

    /** What was retired is kept where it is, and chosen by nobody any more. */
    private static function mustBeOffered(Field $field, string|int|bool|null $value, ?Record $before): void
    {
        if (! is_string($value) || $field->choices === []) {
            return;
        }
        $had = explode(',', (string) $before?->value($field->name));
        foreach (array_diff(explode(',', $value), $had) as $chosen) {
            if ($field->choice($chosen)?->isRetired) {
                throw new InvalidValue(
                    'retired',
                    Words::say(
                        '{field}: ‘{choice}’ is not offered any more.',
                        field: $field->label,
                        choice: $field->choice($chosen)->label,
                    ),
                );
            }
        }
    }

    private function mustBeFree(
        RecordType $type, Field $field, string|int|bool|null $value, ?Record $before, ?KnownValues $known,
    ): void {
        if ($known !== null && $field->unique && is_string($value)) {
            if (! $known->takes($field->name, $value, $before?->id)) {
                throw new InvalidValue(
                    'taken',
                    Words::say('{field}: another {record} has it already.', field: $field->label, record: Words::within($type->label)),
                );
            }

            return;
        }
        if ($field->unique && $value !== null && StoredRecord::rowsOf($type)->where($field->name, $value)
            ->when($before !== null, static fn (Builder $rows): Builder => $rows->where('id', '<>', $before?->id))->exists()) {
            throw new InvalidValue(
                'taken',
                Words::say('{field}: another {record} has it already.', field: $field->label, record: Words::within($type->label)),
            );
        }
    }

    /** People come by id or by handle. */
    private function person(mixed $raw): mixed
    {
        return is_string($raw) && preg_match('/^[a-z]/i', $raw) === 1 ? ($this->people->idOf($raw) ?? 0) : $raw;
    }

    private function mustExist(Field $field, string|int|bool|null $value, ?KnownValues $known): void
    {
        if ($value === null || (is_int($value) && $known?->has($field, $value) === true)) {
            return;
        }
        if ($field->type === FieldType::Person && ! Person::rows()->where('id', $value)->where('active', true)->exists()) {
            throw new InvalidValue('unknown_value', Words::say('{field}: there is no such person at work here.', field: $field->label));
        }
        if ($field->type === FieldType::Reference) {
            $target = $this->schemas->schema()->type((string) $field->target);
            if ($target === null || ! StoredRecord::rowsOf($target)->where('id', $value)->exists()) {
                $record = Words::within($target->label ?? Words::say('Record'));
                throw new InvalidValue(
                    'unknown_value',
                    Words::say('{field}: there is no such {record}.', field: $field->label, record: $record),
                );
            }
        }
    }
}
