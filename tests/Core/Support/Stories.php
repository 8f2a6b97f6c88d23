<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use Random\Engine\Mt19937;
use Random\Randomizer;
use VividLedger\Condition\Given\GivenField;
use VividLedger\Condition\Operator\ChangeOperator;
use VividLedger\Condition\Operator\InTeam;
use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Facts\TotalKind;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\People;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Relation;
use VividLedger\Schema\Schema;

/** Random but repeatable values, conditions and rules, rich in empties and in values that nearly meet. */
final class Stories
{
    private const TEXTS = [
        'a', 'A', 'ab', 'Über', 'über', 'ÜBER', 'straße', 'İx', 'ix', 'Σας', 'σασ', '50%', '_', '\\', 'x_y', "o'k", '🌿', 'é', "e\u{301}",
        'Ж', 'ж',
    ];

    public Randomizer $random;

    /** @var list<string> teams that conditions ask about; where there are none, none does */
    public array $teams = [];

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
            FieldType::Number, FieldType::Money, FieldType::Percent => number_format(
                $this->one(array_filter(
                    [-1, 0, 0.1, 0.2, 0.3, 1, 9.9, 10, 100, 99999999999],
                    static fn (float|int $value): bool => $value >= ($field->min ?? -1) && $value <= ($field->max ?? 1e12),
                )),
                $field->scale,
                '.',
                '',
            ),
            FieldType::Date => $this->one(['2026-02-28', '2026-03-01', '2026-11-24', '2026-11-25', '1999-12-31']),
            FieldType::DateTime => $this->one(['2026-11-24T08:40:00Z', '2026-11-24T08:40:01Z', '2026-03-29T01:30:00Z']),
            FieldType::Choice => $this->one($field->choices)->value,
            FieldType::Choices => implode(
                ',',
                array_map(
                    static fn ($choice): string => $choice->value,
                    array_filter($field->choices, fn (): bool => $this->random->getInt(0, 1) === 1),
                ),
            ),
            FieldType::Tags => $this->one(['green', 'green,tall', 'tall', 'über', 'tree,über']),
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
        if ($this->random->getInt(1, 10) === 1) {
            return ['kind' => 'formula', 'formula' => $this->formula($type)];
        }
        [$left, $field, $own] = $this->left($type);
        $operator = $this->one(array_filter(
            Operators::fitting($field->type),
            fn (Operator $operator): bool => ($own || ! $operator instanceof ChangeOperator)
                && ($this->teams !== [] || ! $operator instanceof InTeam),
        ));
        $condition = ['kind' => $operator->kind(), ...$left];

        return match ($operator->operand()) {
            Operand::Nothing => $condition,
            Operand::One => $condition + [
                'value' => $operator instanceof InTeam ? $this->one($this->teams)
                    : ($operator->ofNothing() === null ? $this->operand($field) : $this->given($type, $field)),
            ],
            Operand::Span => $condition + ['value' => ['amount' => $this->one([1, 30, 100]), 'unit' => $this->one(['day', 'month'])]],
            Operand::Many => $condition + ['values' => array_values(array_unique([$this->operand($field), $this->operand($field)]))],
        };
    }

    /** @return array<string, mixed> a rule file about tickets */
    public function rule(string $name): array
    {
        $type = $this->schema->types['ticket'];
        $fields = array_values(array_filter(
            $type->ownFields(),
            static fn (Field $field): bool => $field->type === FieldType::Choice || $field->type === FieldType::Tick,
        ));
        $lines = [];
        for ($count = $this->random->getInt(1, 2); $count > 0; $count--) {
            $field = $this->one($fields);
            $lines[] = $this->random->getInt(1, 3) === 1
                ? [
                    'kind' => 'give_task', 'to' => $this->one([['kind' => 'owner'], ['kind' => 'manager', 'of' => ['kind' => 'creator']]]),
                    'title' => 'Look at {number}', 'due' => ['amount' => 1, 'unit' => 'day'],
                ]
                : [
                    'kind' => 'set_fields',
                    'set' => [['field' => $field->name, 'to' => ['kind' => 'value', 'value' => $this->operand($field)]]],
                ];
        }
        if ($this->random->getInt(1, 3) === 1) {
            $lines[] = $this->furtherLine($type);
        }
        foreach ($lines as $index => $line) {
            if (str_starts_with($line['kind'], 'give_task') && $this->random->getInt(1, 3) === 1) {
                $lines[$index]['lapses'] = $this->condition($type, 2);
            }
        }

        return [
            'name' => $name, 'on' => 'ticket',
            'when' => $this->one([
                ['kind' => 'created'], ['kind' => 'created_or_changed'], ['kind' => 'changed'],
                ['kind' => 'changed', 'fields' => [$this->one($fields)->name]],
            ]),
            'onlyIf' => ['kind' => 'all', 'of' => $this->random->getInt(1, 5) <= 2 ? [] : [$this->condition($type, 2)]],
            'fires' => $this->one([
                ['kind' => 'every_time'], ['kind' => 'every_time'], ['kind' => 'becomes_true'], ['kind' => 'becomes_true'],
                ['kind' => 'once_per_record'],
                [
                    'kind' => 'once_per_record', 'again' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed'],
                ], ['kind' => 'once_per_value', 'field' => 'status'],
                ['kind' => 'once_in_period', 'period' => ['amount' => 3, 'unit' => 'hour']], ['kind' => 'so_many_times', 'times' => 2],
            ]), 'lines' => $lines,
        ];
    }

    /** @return array<string, mixed> a line that does more than set a field or give a task */
    private function furtherLine(RecordType $type): array
    {
        $customer = $this->schema->types['customer'];
        $counters = array_values(array_filter(
            $customer->ownFields(),
            static fn (Field $field): bool => $field->type->isDecimal() && $field->scale === 0,
        ));
        $line = $this->one([
            [
                'kind' => 'set_fields', 'on' => 'customer',
                'set' => [['field' => $this->one($counters)->name, 'to' => ['kind' => $this->one(['add', 'subtract']), 'amount' => '1']]],
            ],
            ['kind' => 'comment', 'text' => "Seen:\n{subject}"],
            ['kind' => 'follow', 'who' => ['kind' => 'owner']],
            [
                'kind' => 'set_fields',
                'set' => [
                    ['field' => 'notes', 'to' => ['kind' => 'append', 'text' => 'once more {number}']],
                    ['field' => 'tags', 'to' => ['kind' => 'add_member', 'member' => 'seen']],
                ],
            ],
            [
                'kind' => 'send_message', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'subject' => 'About {number}',
                'body' => '<p>It is <span data-merge="status">Status</span>.</p>',
            ],
            [
                'kind' => 'give_tasks',
                'tasks' => [
                    ['to' => ['kind' => 'doer'], 'title' => 'One', 'priority' => 'high'],
                    ['to' => ['kind' => 'owner'], 'title' => 'Two', 'due' => ['amount' => 2, 'unit' => 'day', 'from' => 'due']],
                ],
            ],
        ]);

        return $this->random->getInt(1, 3) === 1 ? $line + ['onlyIf' => $this->condition($type, 3)] : $line;
    }

    /**
     * The same rule with time in it: timings of its lines, what is too late, until and never.
     *
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>
     */
    public function inTime(array $file): array
    {
        $due = fn (int $least): array => [
            'amount' => $this->random->getInt($least, 20), 'unit' => $this->one(['minute', 'hour', 'working_hour']),
        ];
        $days = fn (int $least): array => [
            'amount' => $this->random->getInt($least, 20), 'unit' => $this->one(['day', 'week', 'month', 'working_day']),
        ] + $this->one([
            [], ['roll' => 'next'], ['time' => '09:00'], ['roll' => 'previous', 'time' => '23:30'], ['clock' => 'owner'],
        ]);
        foreach ($file['lines'] as $index => $line) {
            if (in_array($line['kind'], ['refuse'], true) || $this->random->getInt(1, 3) === 1) {
                continue;
            }
            $at = $this->one([
                ['kind' => 'after'] + $due(1), ['kind' => 'after'] + $days(1),
                ['kind' => 'date', 'field' => isset($this->schema->types[$file['on']]->fields['due']) ? 'due' : 'created_at'] + $days(-20),
                ['kind' => 'every', 'times' => $this->random->getInt(1, 9)] + $days(1),
            ]);
            $file['lines'][$index] = ['at' => $at] + ($this->random->getInt(1, 3) === 1 ? ['tooLate' => ['amount' => 2, 'unit' => 'day']]
                : []) + $line;
        }
        if ($this->random->getInt(0, 1) === 1) {
            $file['until'] = $this->one([
                ['kind' => 'happened', 'event' => 'reply'],
                [
                    'kind' => 'any',
                    'of' => [$this->condition($this->schema->types[$file['on']], 2), ['kind' => 'happened', 'event' => 'comment']],
                ],
            ]);
        }
        if ($this->random->getInt(0, 1) === 1) {
            $file['never'] = $this->one([
                ['outside' => ['from' => '08:00', 'to' => '24:00', 'workingDays' => true]],
                ['moreThan' => ['messages' => 2, 'amount' => 1, 'unit' => 'week', 'then' => 'drop']],
            ]);
        }

        return $this->inCases($file);
    }

    /**
     * The same rule with some of its lines in cases. What it draws it draws for itself, so that all else stays as it was.
     *
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>
     */
    private function inCases(array $file): array
    {
        $drawn = $this->random;
        $this->random = new Randomizer(new Mt19937(crc32((string) json_encode($file))));
        $type = $this->schema->types[$file['on']];
        $if = fn (string $kind): array => ['kind' => $kind, 'that' => ['kind' => 'all', 'of' => [$this->condition($type, 2)]]];
        $inner = ['inner' => true];
        $lines = $file['lines'];
        if (! isset($lines[0]['at']) && $lines[0]['kind'] !== 'refuse' && $this->random->getInt(1, 3) === 1) {
            $own = $this->one(array_filter($type->ownFields(), static fn (Field $field): bool => $field->type === FieldType::Choice));
            $that = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => $own->name, 'value' => $this->operand($own)]]];
            $lines[0]['at'] = ['kind' => 'once_true', 'that' => $that]
                + $this->one([[], ['within' => ['amount' => $this->random->getInt(1, 9), 'unit' => $this->one(['hour', 'day'])]]]);
        }
        if ($this->random->getInt(1, 3) === 1) {
            $at = ! str_contains((string) json_encode($lines), '"refuse"') && $this->random->getInt(0, 1) === 1
                ? ['at' => [
                    'kind' => 'after', 'amount' => $this->random->getInt(1, 9), 'unit' => $this->one(['hour', 'day', 'working_day']),
                ]] : [];
            $again = $lines[0]['kind'] === 'refuse' ? [] : [$lines[0]];
            $lines = [
                $if('if') + $at, $lines[0],
                ...$this->one([
                    [], [$if('or_if'), ...$again],
                    [$if('if') + $inner, ...$again, ['kind' => 'otherwise'] + $inner, ...$again],
                ]),
                ...$this->one([[], [['kind' => 'otherwise']]]), ...array_slice($lines, 1, 1),
                ...$this->one([[], [['kind' => 'in_all_cases']]]), ...array_slice($lines, 2),
            ];
        }
        $this->random = $drawn;

        return ['lines' => $lines] + $file;
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

    /**
     * @return array{array<string, mixed>, Field, bool} what a condition looks at, as a rule file writes it, the kind of value, and
     *     whether it is the record's own field
     */
    private function left(RecordType $type): array
    {
        $children = array_values(array_filter(
            Relation::of($this->schema, $type),
            static fn (Relation $relation): bool => $relation->children,
        ));
        if ($children === [] || $this->random->getInt(1, 6) > 1) {
            [$path, $field] = $this->path($type);

            return [['field' => $path], $field, ! str_contains($path, '.')];
        }
        $relation = $this->one($children);
        $kind = $this->one(TotalKind::cases());
        $fields = array_values(array_filter($relation->type->fields, static fn (Field $field): bool => $kind->fits($field->type)));
        $total = ['relation' => $relation->name()];
        if ($fields === []) {
            [$kind, $field] = [TotalKind::Count, null];
        } else {
            $field = $this->one($fields);
            $total['field'] = $field->name;
        }
        $inner = $this->one($relation->type->ownFields());
        $operator = $this->one(array_filter(
            Operators::fitting($inner->type),
            static fn (Operator $operator): bool => ! $operator instanceof InTeam && $operator->operand() === Operand::One
                && ! $operator instanceof ChangeOperator || $operator->operand() === Operand::Nothing
                && ! $operator instanceof ChangeOperator,
        ));
        if ($this->random->getInt(0, 1) === 1) {
            $total['where'] = [
                'kind' => $operator->kind(), 'field' => $inner->name,
            ] + ($operator->operand() === Operand::One ? ['value' => $this->operand($inner)] : []);
        }

        return [['total' => ['of' => $kind->value] + $total], $field ?? new Field('count', 'Count', FieldType::Number, scale: 0), false];
    }

    /** A value, or one found when the condition is judged. */
    private function given(RecordType $type, Field $field): mixed
    {
        $alike = array_values(array_filter(
            $type->fields,
            static fn (Field $other): bool => GivenField::alike($field, $other) && ! $other->type->isSet(),
        ));

        return match (true) {
            $alike !== [] && $this->random->getInt(1, 4) === 1 => ['kind' => 'field', 'path' => $this->one($alike)->name],
            $field->type === FieldType::Person && $this->random->getInt(1, 3) === 1 => [
                'kind' => 'person',
                'person' => $this->one([['kind' => 'owner'], ['kind' => 'creator'], ['kind' => 'manager', 'of' => ['kind' => 'owner']]]),
            ],
            $field->type->isMoment() && $this->random->getInt(1, 3) === 1 => [
                'kind' => 'moment', 'amount' => $this->one([-30, 0, 1, 90]), 'unit' => 'day',
            ],
            default => $this->operand($field),
        };
    }

    /** A formula that comes out true or false, over whatever fields the type has. */
    public function formula(RecordType $type): string
    {
        $of = fn (callable $fits): array => array_values(array_filter(
            $type->fields,
            static fn (Field $field): bool => $fits($field->type),
        ));
        $numbers = $of(static fn (FieldType $fieldType): bool => $fieldType->isDecimal());
        $texts = $of(static fn (FieldType $fieldType): bool => $fieldType === FieldType::Text);
        $dates = $of(static fn (FieldType $fieldType): bool => $fieldType === FieldType::Date);
        $choices = $of(static fn (FieldType $fieldType): bool => $fieldType === FieldType::Choice);
        $parts = [];
        if ($numbers !== []) {
            [$a, $b] = [$this->one($numbers)->name, $this->one($numbers)->name];
            array_push(
                $parts,
                "{$a} * 2 > {$b} + 1",
                "{$a} / {$b} < 3",
                "{$a} / 3 == round({$b}, 2)",
                "abs({$a}) >= least({$b}, 5)",
                "not ({$a} - {$b} == 0)",
                "({$a} > 1 ? {$a} : {$b}) <= most({$a}, 10)",
            );
        }
        if ($texts !== []) {
            $text = $this->one($texts)->name;
            array_push($parts, "length({$text}) > 1", "{$text} ~ 'b' == 'AB'", "{$text} == 'ÜBER'");
        }
        if ($dates !== []) {
            $date = $this->one($dates)->name;
            array_push($parts, "days({$date}, today()) > 0", "year({$date}) == 2026 and month({$date}) != 11", "{$date} < '2026-03-01'");
        }
        foreach (array_slice($choices, 0, 1) as $choice) {
            array_push(
                $parts,
                "{$choice->name} == '{$choice->choices[0]->label}'",
                "empty({$choice->name}) or {$choice->name} != '{$choice->choices[1]->value}'",
            );
        }

        return $this->one($parts);
    }

    /** @return array{string, Field} */
    private function path(RecordType $type): array
    {
        $field = $this->one($type->fields);
        if ($field->type === FieldType::Reference && $this->random->getInt(1, 2) === 1) {
            $far = $this->one($this->schema->types[(string) $field->target]->fields);

            return ["{$field->name}.{$far->name}", $far];
        }

        if ($field->type === FieldType::Person && $this->random->getInt(1, 2) === 1) {
            $far = $this->one(People::type()->fields);

            return ["{$field->name}.{$far->name}", $far];
        }

        return [$field->name, $field];
    }

    /** A value as a rule file writes it: people by handle, records by number. */
    public function operand(Field $field): string|bool
    {
        if ($field->type === FieldType::Choices) {
            return $this->one($field->choices)->value;
        }
        if ($field->type === FieldType::Tags) {
            return $this->one(['green', 'TALL', 'über', 'none']);
        }
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
