<?php

declare(strict_types=1);

namespace App\Store\Types;

use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\OnDelete;
use VividLedger\Schema\RecordType;

/** The written form of a record type, as kept in the database and in the files of the demo company. */
final class Definition
{
    /**
     * @param  array<string, mixed>  $definition  see database/demo/record-types/
     *
     * @throws \ValueError when it names a field type that does not exist
     */
    public static function read(string $name, array $definition): RecordType
    {
        $fields = [];
        foreach ($definition['fields'] as $fieldName => $field) {
            if ($field['retired'] ?? false) {
                continue;
            }
            $choices = [];
            foreach ($field['choices'] ?? [] as $value => $choice) {
                $choices[] = new Choice(
                    (string) $value,
                    $choice['label'],
                    $choice['tone'] ?? null,
                    $choice['closes'] ?? false,
                    $choice['retired'] ?? false,
                );
            }
            $type = FieldType::from($field['type']);
            $fields[] = new Field(
                $fieldName,
                $field['label'],
                $type,
                required: $field['required'] ?? false,
                choices: $choices,
                target: $field['target'] ?? null,
                scale: $field['scale'] ?? ($type === FieldType::Percent ? 1 : 2),
                maxLength: $field['max_length'] ?? ($type === FieldType::LongText ? 10_000 : 190),
                currency: $field['currency'] ?? null,
                min: isset($field['min']) ? (string) $field['min'] : null,
                max: isset($field['max']) ? (string) $field['max'] : null,
                formula: $field['formula'] ?? null,
                help: $field['help'] ?? '',
                section: $field['section'] ?? '',
                default: $field['default'] ?? null,
                unique: $field['unique'] ?? false,
                requiredAt: $field['required_at'] ?? [],
                onDelete: OnDelete::tryFrom($field['on_delete'] ?? '') ?? OnDelete::Keep,
                numbering: $field['numbering'] ?? null,
            );
        }

        return new RecordType(
            name: $name, label: $definition['label'], plural: $definition['plural'], prefix: $definition['prefix'],
            title: $definition['title'], owner: $definition['owner'], ownFields: $fields,
            columns: $definition['columns'] ?? array_slice(array_keys($definition['fields']), 0, 6),
        );
    }
}
