<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Condition\All;
use VividLedger\Condition\Condition;
use VividLedger\Condition\None;
use VividLedger\Facts\Children;
use VividLedger\Facts\Facts;
use VividLedger\Facts\View;
use VividLedger\Formula\ComputedFields;
use VividLedger\Proofread\Reasoning;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\ByHand;
use VividLedger\Rule\Trigger\Changed;
use VividLedger\Rule\Trigger\ComesRound;
use VividLedger\Rule\Trigger\CommentArrived;
use VividLedger\Rule\Trigger\Created;
use VividLedger\Rule\Trigger\CreatedOrChanged;
use VividLedger\Rule\Trigger\DateArrives;
use VividLedger\Rule\Trigger\Deleted;
use VividLedger\Rule\Trigger\FileArrived;
use VividLedger\Rule\Trigger\RelatedChanged;
use VividLedger\Rule\Trigger\ReplyArrived;
use VividLedger\Rule\Trigger\Swept;
use VividLedger\Rule\Trigger\TaskCompleted;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** Proposes the first change of a rehearsal: one that starts the rule, wherever values can bring that about. */
final readonly class Proposer
{
    public function __construct(private Schema $schema, private \DateTimeZone $zone)
    {
    }

    public function opening(Rule $rule, Record $record, Facts $facts, \DateTimeImmutable $now): Opening
    {
        $type = $this->schema->types[$rule->on];
        $set = $this->meeting($rule->condition, $record, $type, $facts);
        $trigger = $rule->trigger;
        $text = $trigger instanceof \VividLedger\Rule\Trigger\EventHappened ? $trigger->about : '';

        return match (true) {
            $trigger instanceof Created => new Opening(OpeningKind::Created, $now, set: $set),
            $trigger instanceof Deleted => new Opening(OpeningKind::Deleted, $now, set: $set),
            $trigger instanceof Changed => $this->changed($trigger, $rule, $record, $type, $facts, $now, $set),
            $trigger instanceof CreatedOrChanged => $this->turned(
                $rule,
                $record,
                $type,
                $facts,
                $now,
                $set,
            ) ?? new Opening(OpeningKind::Created, $now, set: $set),
            $trigger instanceof CommentArrived => new Opening(
                OpeningKind::Comment,
                $now,
                set: $set,
                text: $text === '' ? 'A comment' : $text,
            ),
            $trigger instanceof ReplyArrived => new Opening(OpeningKind::Reply, $now, set: $set, text: $text === '' ? 'A reply' : $text),
            $trigger instanceof FileArrived => new Opening(OpeningKind::File, $now, set: $set, text: $text === '' ? 'plan.pdf' : $text),
            $trigger instanceof TaskCompleted => new Opening(OpeningKind::TaskDone, $now, set: $set, text: $text === '' ? 'A task' : $text),
            $trigger instanceof ByHand => new Opening(OpeningKind::ByHand, $now, set: $set),
            $trigger instanceof DateArrives => $this->date($trigger, $record->with($set), $facts, $now, $set),
            $trigger instanceof ComesRound => new Opening(
                OpeningKind::Time,
                $trigger->timetable->between(
                    $now,
                    $now->modify('+'.Rehearsal::MOST_DAYS.' days'),
                    $this->zone,
                    $facts->calendar(null),
                )[0] ?? $now,
                set: $set,
            ),
            $trigger instanceof Swept => new Opening(OpeningKind::Time, $now, set: $set),
            $trigger instanceof RelatedChanged => $this->related($trigger, $record, $facts, $now, $set),
            default => new Opening(OpeningKind::Changed, $now, set: $set),
        };
    }

    /**
     * Values of the record's own fields with which a condition holds, where they differ from those it has.
     *
     * @return array<string, string|int|bool|null>
     */
    public function meeting(Condition $condition, Record $record, RecordType $type, Facts $facts): array
    {
        $has = [];
        $fixed = [];
        $view = new View($record, $facts);
        foreach ($condition->paths() as $path) {
            $has[$path->name()] = $view->value($path);
            if ($path->hops !== [] || ! $path->field->isSettable()) {
                $fixed[] = $path->name();
            }
        }
        $example = Reasoning::example($condition, $has, $fixed) ?? Reasoning::example($condition, $has) ?? [];
        $set = [];
        foreach ($example as $name => $value) {
            $field = $type->field($name);
            // Number 0 stands for somebody who is named nowhere.
            if ($field !== null && $field->isSettable() && $value !== $record->value($name) && $value !== 0) {
                $set[$name] = $value;
            }
        }

        return $set;
    }

    /** @param  array<string, string|int|bool|null>  $set */
    private function changed(
        Changed $trigger,
        Rule $rule,
        Record $record,
        RecordType $type,
        Facts $facts,
        \DateTimeImmutable $now,
        array $set,
    ): Opening {
        $fields = $trigger->fields;
        $field = $fields->single ?? $type->fields[$fields->names[0] ?? ''] ?? null;
        if ($field === null) {
            return $this->turned($rule, $record, $type, $facts, $now, $set) ?? new Opening(
                OpeningKind::Changed,
                $now,
                $this->another($type->fields[$type->title], $record->value($type->title)),
                [$type->title => $record->value($type->title)],
            );
        }
        if ($fields->to !== null) {
            $set[$field->name] = $fields->to;
        } elseif (! array_key_exists($field->name, $set)) {
            $set[$field->name] = $record->value($field->name);
        }
        $was = $fields->from !== null ? [$field->name => $fields->from]
            : ($set[$field->name] === $record->value($field->name) ? $this->another($field, $set[$field->name]) : []);

        return new Opening(OpeningKind::Changed, $now, $was, $set);
    }

    /**
     * A change with which the conditions become true; null when values cannot bring that about.
     *
     * @param  array<string, string|int|bool|null>  $set
     */
    private function turned(Rule $rule, Record $record, RecordType $type, Facts $facts, \DateTimeImmutable $now, array $set): ?Opening
    {
        if ($set !== []) {
            return new Opening(OpeningKind::Changed, $now, [], $set);
        }
        $was = $this->meeting(new None([$rule->condition]), $record, $type, $facts);
        if ($was === []) {
            return null;
        }

        return new Opening(OpeningKind::Changed, $now, $was, array_intersect_key($record->values, $was));
    }

    /** @param  array<string, string|int|bool|null>  $set */
    private function date(DateArrives $trigger, Record $record, Facts $facts, \DateTimeImmutable $now, array $set): Opening
    {
        if ($record->value($trigger->field->name) === null && $trigger->field->isSettable()) {
            // A record without the date is supposed to have one that is about to come.
            $days = $trigger->daysBetween($now, $now->modify('+1 month'), $facts->calendar(null), $this->zone);
            $day = $days[0] ?? $now->setTimezone($this->zone)->format('Y-m-d');
            $set[$trigger->field->name] = $trigger->isDay() ? $day : "{$day}T09:00:00Z";
            $record = $record->with([$trigger->field->name => $set[$trigger->field->name]]);
        }
        $moments = array_column(
            Upcoming::dates(
                $trigger,
                $this->schema->types[$record->type],
                $record,
                $facts,
                $this->zone,
                $now,
                $now->modify('+'.Rehearsal::MOST_DAYS.' days'),
            ),
            0,
        );
        $coming = array_values(array_filter($moments, static fn (\DateTimeImmutable $at): bool => $at >= $now));

        return new Opening(OpeningKind::Time, $coming === [] ? ($moments === [] ? $now : max($moments)) : min($coming), set: $set);
    }

    /** @param  array<string, string|int|bool|null>  $set */
    private function related(RelatedChanged $trigger, Record $record, Facts $facts, \DateTimeImmutable $now, array $set): Opening
    {
        $relation = $trigger->relation;
        $own = $trigger->fields?->single;
        if (! $relation->children) {
            $id = $record->value($relation->by->name);
            $other = is_int($id) ? $facts->record($relation->type->name, $id) : null;
        } else {
            $other = $trigger->happening === 'created' ? null
                : ($facts->children(new Children($relation->type->name, $relation->by->name), $record->id, 1)[0] ?? null);
        }
        $values = $relation->children ? [$relation->by->name => $record->id] : [];
        if ($trigger->where !== null) {
            $values += Reasoning::example($trigger->where) ?? [];
        }
        $field = $own ?? $relation->type->fields[$trigger->fields->names[0] ?? ''] ?? null;
        if ($field !== null) {
            $values[$field->name] = $trigger->fields->to ?? array_values($this->another($field, $other?->value($field->name)))[0];
        }

        return new Opening(
            OpeningKind::Related,
            $now,
            $set,
            array_intersect_key($values, $relation->type->fields),
            related: [$relation->type->name, $other->id ?? 0],
        );
    }

    /** @return array<string, string|int|bool|null> some other value of a field */
    private function another(Field $field, string|int|bool|null $value): array
    {
        $other = match (true) {
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

        return [$field->name => $other];
    }

    /** A record that is made up to meet the rule, on the ground of another. */
    public function madeUp(Rule $rule, Record $ground, Facts $facts): Record
    {
        return $ground->with(
            ComputedFields::with($this->schema->types[$rule->on], array_replace(
                $ground->values,
                $this->meeting(new All([$rule->condition]), $ground, $this->schema->types[$rule->on], $facts),
            )),
        );
    }
}
