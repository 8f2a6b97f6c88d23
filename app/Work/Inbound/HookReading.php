<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use App\Models\Inbound\Hook;
use App\Models\Records\StoredRecord;
use App\Store\DomainError;
use App\Store\Sql\RecordSql;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Member;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Reads what arrived at a hook: which record it is about, and what goes into its fields. */
final readonly class HookReading
{
    private const DEEPEST = 64;

    /** @throws DomainError when it cannot be taken */
    public function of(Hook $hook, RecordType $type, string $raw): HookRead
    {
        $document = json_decode($raw, true, self::DEEPEST);
        if (! is_array($document)) {
            throw new DomainError('not_json', Words::say('It is no JSON object.'));
        }
        $values = [];
        foreach ($hook->takes as ['path' => $path, 'field' => $field]) {
            [$found, $value] = Member::find($document, $path);
            if (! $found) {
                continue;
            }
            // Other systems write numbers where a text is meant.
            $values[$field] = is_int($value) || is_float($value) ? (string) $value : $value;
        }
        $record = $hook->known_by === null ? null : $this->known($type, $hook->known_by, $values[$hook->known_by] ?? null);
        if ($record === null && ! $hook->may_create) {
            throw new DomainError(
                'not_found',
                Words::say('There is no such {record}, and this hook makes none.', record: Words::within($type->label)),
            );
        }
        $values += $record === null ? array_column($hook->starts, 'value', 'field') : [];

        return new HookRead($record, $values);
    }

    private function known(RecordType $type, string $by, mixed $value): ?Record
    {
        $field = $type->field($by) ?? throw new DomainError(
            'unknown_field',
            Words::say('{type} has no field ‘{by}’ any more.', type: $type->label, by: $by),
        );
        try {
            $value = Value::of($field, $value);
        } catch (InvalidValue $invalid) {
            throw new DomainError('invalid_values', $invalid->getMessage());
        }
        if ($value === null) {
            throw new DomainError(
                'invalid_values',
                Words::say(
                    'It does not say which {record} it is about: {field} is missing.',
                    record: Words::within($type->label),
                    field: $field->label,
                ),
            );
        }
        $ids = StoredRecord::rowsOf($type)->where($field->name, $value)->orderBy('id')->limit(2)->pluck('id')->all();
        if (count($ids) > 1) {
            throw new DomainError(
                'several',
                Words::say('More than one {record} has this {field}.', record: Words::within($type->label), field: $field->label),
            );
        }

        return $ids === [] ? null : RecordSql::record($type, (int) $ids[0]);
    }
}
