<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** Random but repeatable values, conditions and rules, rich in empties and in values that nearly meet. */
final class Stories
{
    private const TEXTS = ['a', 'A', 'ab', 'Über', 'über', 'ÜBER', 'straße', 'İx', 'ix', 'Σας', 'σασ', '50%', '_', '\\', 'x_y', "o'k", '🌿', 'é', "e\u{301}", 'Ж', 'ж'];

    public Randomizer $random;

    /**
     * @param  list<string>  $handles  of people, to be named in conditions
     * @param  array<string, list<int>>  $ids  of records by type
     */
    public function __construct(int $seed, private readonly Schema $schema, private readonly array $handles, private readonly array $ids)
    {
        $this->random = new Randomizer(new Mt19937($seed));
    }

    /** A value as it comes from outside; null for empty. */
    public function value(Field $field): string|int|bool|null
    {
        if ($field->type === FieldType::Tick) {
            return $this->random->getInt(0, 1) === 1;
        }
        if (! $field->required && $this->random->getInt(1, 4) === 1) {
            return null;
        }

        return match ($field->type) {
            FieldType::Text => mb_substr($this->one(self::TEXTS).$this->one(['', '', 'b', 'B']), 0, $field->maxLength),
            FieldType::LongText => $this->one(self::TEXTS)."\n".$this->one(self::TEXTS),
            FieldType::Email => $this->one(['a@x.example', 'A@x.example', 'b@y.example']),
            FieldType::Phone => $this->one(['+49 30 5550', '+49 30 5551']),
            FieldType::Link => $this->one(['https://a.example', 'https://A.example/b']),
            FieldType::Number, FieldType::Money, FieldType::Percent => number_format($this->one([-1, 0, 0.1, 0.2, 0.3, 1, 9.9, 10, 100, 99999999999]), $field->scale, '.', ''),
            FieldType::Date => $this->one(['2026-02-28', '2026-03-01', '2026-11-24', '2026-11-25', '1999-12-31']),
            FieldType::DateTime => $this->one(['2026-11-24T08:40:00Z', '2026-11-24T08:40:01Z', '2026-03-29T01:30:00Z']),
            FieldType::Choice => $this->one($field->choices)->value,
            FieldType::Person => $this->random->getInt(1, 4),
            FieldType::Reference => $this->one($this->ids[(string) $field->target]),
        };
    }

    /** @return array<string, mixed> a condition as a rule file writes it */
    public function condition(RecordType $type, int $depth = 0): array
    {
        if ($depth < 3 && $this->random->getInt(1, 5) <= 2) {
            $parts = [];
            for ($count = $this->random->getInt(1, 3); $count > 0; $count--) {
                $parts[] = $this->condition($type, $depth + 1);
            }

            return ['kind' => $this->one(['all', 'any', 'none']), 'of' => $parts];
        }
        [$path, $field] = $this->path($type);
        $operator = $this->one(Operators::fitting($field->type));
        $condition = ['kind' => $operator->kind(), 'field' => $path];

        return match ($operator->operand()) {
            Operand::Nothing => $condition,
            Operand::One => $condition + ['value' => $this->operand($field)],
            Operand::Many => $condition + ['values' => array_values(array_unique([$this->operand($field), $this->operand($field)]))],
        };
    }

    /** @return array<string, mixed> a rule file about tickets */
    public function rule(string $name): array
    {
        $type = $this->schema->types['ticket'];
        $fields = array_values(array_filter($type->ownFields(), static fn (Field $field): bool => $field->type === FieldType::Choice || $field->type === FieldType::Tick));
        $lines = [];
        for ($count = $this->random->getInt(1, 2); $count > 0; $count--) {
            $field = $this->one($fields);
            $lines[] = $this->random->getInt(1, 3) === 1
                ? ['kind' => 'give_task', 'to' => $this->one([['kind' => 'owner'], ['kind' => 'manager', 'of' => ['kind' => 'creator']]]), 'title' => 'Look at {number}', 'due' => ['amount' => 1, 'unit' => 'day']]
                : ['kind' => 'set_fields', 'set' => [['field' => $field->name, 'to' => ['kind' => 'value', 'value' => $this->operand($field)]]]];
        }

        return [
            'name' => $name, 'on' => 'ticket',
            'when' => $this->one([['kind' => 'created'], ['kind' => 'created_or_changed'], ['kind' => 'changed'], ['kind' => 'changed', 'fields' => [$this->one($fields)->name]]]),
            'onlyIf' => ['kind' => 'all', 'of' => $this->random->getInt(1, 5) === 1 ? [] : [$this->condition($type, 2)]],
            'fires' => ['kind' => $this->one(['every_time', 'becomes_true', 'once_per_record'])], 'lines' => $lines,
        ];
    }

    /**
     * @template T
     *
     * @param  non-empty-array<T>  $from
     * @return T
     */
    public function one(array $from): mixed
    {
        return array_values($from)[$this->random->getInt(0, count($from) - 1)];
    }

    /** @return array{string, Field} */
    private function path(RecordType $type): array
    {
        $field = $this->one($type->fields);
        if ($field->type === FieldType::Reference && $this->random->getInt(1, 2) === 1) {
            $far = $this->one($this->schema->types[(string) $field->target]->fields);

            return ["{$field->name}.{$far->name}", $far];
        }

        return [$field->name, $field];
    }

    /** A value as a rule file writes it: people by handle, records by number. */
    private function operand(Field $field): string|bool
    {
        do {
            $value = $this->value($field);
        } while ($value === null || (is_string($value) && trim($value) === ''));

        return match ($field->type) {
            FieldType::Person => $this->one($this->handles),
            FieldType::Reference => $this->schema->types[(string) $field->target]->numberOf((int) $value),
            FieldType::Tick => (bool) $value,
            default => (string) $value,
        };
    }
}
