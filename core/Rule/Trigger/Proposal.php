<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use Closure;
use VividLedger\Condition\Condition;
use VividLedger\Condition\None;
use VividLedger\Facts\Facts;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** What a trigger makes the first change of a rehearsal of: one that starts the rule, wherever values can bring that about. */
final readonly class Proposal
{
    /** @var array<string, string|int|bool|null> values with which the conditions hold, where they differ from those it has */
    public array $set;

    /**
     * @param  \DateTimeImmutable  $until  how far a rehearsal reaches
     * @param  Closure(Condition): array<string, string|int|bool|null>  $meeting  values of the record with which a condition holds
     * @param  Closure(Condition): array<string, string|int|bool|null>  $example  values of any record with which it does
     */
    public function __construct(
        public Record $record,
        public RecordType $type,
        private Condition $condition,
        public Facts $facts,
        public \DateTimeZone $zone,
        public \DateTimeImmutable $now,
        public \DateTimeImmutable $until,
        private Closure $meeting,
        private Closure $example,
    ) {
        $this->set = $meeting($condition);
    }

    /**
     * @param  string  $text  of a comment or reply, or the title of a task
     * @param  string  $from  who wrote the reply; which hook brought it
     */
    public function opening(OpeningKind $kind, string $text = '', string $from = ''): Opening
    {
        return new Opening($kind, $this->now, set: $this->set, text: $text, from: $from);
    }

    /** A change with which the conditions become true; null when values cannot bring that about. */
    public function turned(): ?Opening
    {
        if ($this->set !== []) {
            return new Opening(OpeningKind::Changed, $this->now, [], $this->set);
        }
        $was = ($this->meeting)(new None([$this->condition]));

        return $was === [] ? null
            : new Opening(OpeningKind::Changed, $this->now, $was, array_intersect_key($this->record->values, $was));
    }

    /** @return array<string, string|int|bool|null> values of some record that meet a condition */
    public function example(Condition $condition): array
    {
        return ($this->example)($condition);
    }

    /** Some other value of a field than one it has. */
    public function another(Field $field, string|int|bool|null $value): string|bool|null
    {
        return match (true) {
            $field->type === FieldType::Tick => $value !== true,
            $field->type === FieldType::Choice => array_values(array_filter(
                array_map(static fn ($choice): string => $choice->value, $field->choices),
                static fn (string $choice): bool => $choice !== $value,
            ))[0] ?? null,
            $value !== null => null,
            $field->type->isDecimal() => $field->min ?? '1',
            $field->type === FieldType::Date => '2026-01-01',
            $field->type === FieldType::DateTime => '2026-01-01T09:00:00Z',
            $field->type->isText() && $field->type !== FieldType::Email => 'Something else',
            default => null,
        };
    }
}
