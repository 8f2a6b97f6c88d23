<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use Closure;
use VividLedger\Condition\ChildrenRead;
use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionsBelow;
use VividLedger\Facts\Children;
use VividLedger\Facts\Facts;
use VividLedger\Facts\Total;
use VividLedger\Facts\View;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\ReadsChildren;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\Elsewhere;
use VividLedger\Shape\Slot\FieldValue;
use VividLedger\Shape\Slot\Many;

/**
 * Something happened to a record that refers to this one, or that this one refers to. The related record can have
 * conditions of its own; the rule itself is judged on this record.
 */
final readonly class RelatedChanged implements CutsOff, ReadsChildren, Trigger
{
    /** How many records one change of a parent can start a rule on; a rule for more belongs on the parent. */
    public const MOST_CHILDREN = 2000;

    /** @var ?Closure(View): bool */
    private ?Closure $test;

    private function __construct(
        private string $on,
        private Relation $relation,
        private string $happening,
        private ?ChangedFields $fields,
        private ?Condition $where,
    ) {
        $this->test = $where?->compile();
    }

    public static function kind(): string
    {
        return 'related';
    }

    public static function label(): string
    {
        return 'has something happen to a related record';
    }

    public static function shape(): Shape
    {
        $of = static fn (Scope $scope, array $around): ?RecordType => Relation::named(
            $scope->schema,
            $scope->type,
            is_string($around['related'] ?? null) ? $around['related'] : '',
        )?->type;
        $where = '[, where {where}][, or by hand{byHand}]';
        $shape = Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->shows('’s {related} {happening} in {fields}[ from {from}][ to {to}] {where}', ['happening' => 'changed'])
            ->shows('’s {related} {happening} {where}');
        foreach (['created' => 'created', 'deleted' => 'deleted', 'created_or_changed' => 'created or changed'] as $happening => $said) {
            $shape->says("{subject} has its {related} {$said}{$where}", ['happening' => $happening])
                ->orSaidWith(
                    ['happening' => $happening],
                    "{subject}’s {related} is {$said}{$where}",
                    "{related} of {subject} is {$said}{$where}",
                );
        }

        return $shape->says("{subject} has its {related} changed[ in {fields}][ from {from}][ to {to}]{$where}", ['happening' => 'changed'])
            ->orSaidWith(
                ['happening' => 'changed'],
                "{subject}’s {related} is changed[ in {fields}]{$where}",
                "{related} of {subject} changes[ in {fields}]{$where}",
            )
            ->slot('subject', new Subject)->slot('byHand', new Always)->slot('related', new RelationSlot)
            ->slot('where', new ConditionsBelow(
                $of,
                static fn (Filled $read, Context $context): RecordType => $read->any('related', Relation::class)->type ?? $context->type,
                'whose',
                '+ with conditions',
            ))
            ->slot('happening', new Happening)
            ->slot('fields', new FieldsToChange(new Elsewhere(FieldsToChange::named(), $of)))
            ->slot('from', new ChangedValue('from', self::valueOf($of)))->slot('to', new ChangedValue('to', self::valueOf($of)));
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self(
            $context->type->name,
            $read->the('related', Relation::class),
            $read->text('happening'),
            $read->text('happening') === 'changed' ? ChangedFields::of($read, $context->display) : null,
            $read->any('where', Condition::class),
        );
    }

    /**
     * A value of the one field that is watched on the related record.
     *
     * @param  Closure(Scope, array<mixed>): ?RecordType  $of
     */
    private static function valueOf(Closure $of): FieldValue
    {
        return new FieldValue(static function (Scope $scope, array $around) use ($of): ?Field {
            $names = is_array($around['fields'] ?? null) ? $around['fields'] : [];

            return count($names) === 1 && is_string($names[0] ?? null) ? $of($scope, $around)?->field($names[0]) : null;
        });
    }

    public function watch(): Watch
    {
        return new Watch(
            $this->relation->type->name,
            created: $this->happening === 'created' || $this->happening === 'created_or_changed',
            fields: match ($this->happening) {
                'changed' => $this->fields?->names,
                'created_or_changed' => null,
                default => [],
            },
            deleted: $this->happening === 'deleted',
        );
    }

    public function isOwn(): bool
    {
        return false;
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        if ($change->event !== null || $change->record()->type !== $this->relation->type->name) {
            return false;
        }
        $happened = match ($this->happening) {
            'created' => $change->before === null,
            'deleted' => $change->after === null,
            'changed' => $change->before !== null && $change->after !== null && $this->fields?->changedIn($change) === true,
            default => $change->after !== null,
        };

        return $happened && ($this->test === null || ($this->test)(new View($change->record(), $facts, $change)));
    }

    public function asksNoMore(): bool
    {
        return false;
    }

    public function subjects(Change $change, Facts $facts): array
    {
        if (! $this->relation->children) {
            return $facts->children(new Children($this->on, $this->relation->by->name), $change->record()->id, self::MOST_CHILDREN);
        }
        // A record that moved from one parent to another concerns both.
        $parents = [];
        foreach ([$change->after, $change->before] as $record) {
            $id = $record?->value($this->relation->by->name);
            if (is_int($id) && ! isset($parents[$id])) {
                $parents[$id] = $facts->recordToChange($this->on, $id);
            }
        }

        return array_values(array_filter($parents));
    }

    public function childrenRead(): array
    {
        return [
            ...($this->relation->children ? [] : [ChildrenRead::of(new Children($this->on, $this->relation->by->name))]),
            ...($this->where === null ? [] : ChildrenRead::in($this->where)),
        ];
    }

    public function concerned(Change $change, Facts $facts, int $judged): int
    {
        if ($this->relation->children || $judged < self::MOST_CHILDREN) {
            return $judged;
        }

        return (int) $facts->total(Total::countOf(new Children($this->on, $this->relation->by->name)), $change->record()->id, []);
    }

    public function occasionOf(Change $change, Facts $facts): ?string
    {
        return null;
    }

    public function wanted(): string
    {
        return "’s {$this->relation->one()} ".Happening::SAID[$this->happening].($this->fields?->wording() ?? '');
    }

    public function opening(Proposal $proposal): Opening
    {
        $relation = $this->relation;
        $record = $proposal->record;
        if (! $relation->children) {
            $id = $record->value($relation->by->name);
            $other = is_int($id) ? $proposal->facts->record($relation->type->name, $id) : null;
        } else {
            $other = $this->happening === 'created' ? null
                : ($proposal->facts->children(new Children($relation->type->name, $relation->by->name), $record->id, 1)[0] ?? null);
        }
        $values = $relation->children ? [$relation->by->name => $record->id] : [];
        if ($this->where !== null) {
            $values += $proposal->example($this->where);
        }
        $field = $this->fields->single ?? $relation->type->fields[$this->fields->names[0] ?? ''] ?? null;
        if ($field !== null) {
            $values[$field->name] = $this->fields->to ?? $proposal->another($field, $other?->value($field->name));
        }

        return new Opening(
            OpeningKind::Related,
            $proposal->now,
            $proposal->set,
            array_intersect_key($values, $relation->type->fields),
            related: [$relation->type->name, $other->id ?? 0],
        );
    }
}
