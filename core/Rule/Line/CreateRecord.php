<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Record\InvalidValue;
use VividLedger\Rule\Performance\Performance;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Slot\TypeName;
use VividLedger\Shape\WordRole;

/** Makes a record of any type with its fields filled in; the lines below can work on it and refer to it. */
final readonly class CreateRecord implements Line, Writes
{
    private const NAME_LENGTH = 60;

    private function __construct(private RecordType $type, private Assignments $assignments, private string $name)
    {
    }

    public static function kind(): string
    {
        return 'create_record';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['set' => []])->says('Make a new {type}[ with {set}][, called {as}]')->orSaid(
            '(make|create|open|add|start|raise) (a|an|a new|another|) {type}[ (with|where|having) {set}][, called {as}]',
        )->slot('type', new TypeName)->slot('set', new AssignmentsSlot(
            static fn (Scope $scope, array $around): ?RecordType => $scope->schema->type(
                is_string($around['type'] ?? null) ? $around['type'] : '',
            ),
        ))->slot('as', new Quoted(self::NAME_LENGTH))->needs('set');
    }

    public static function label(): string
    {
        return 'Make a related record';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->glue('Make a new');
        $types = $context->schema->types;
        $offers = static fn (): array => array_map(
            static fn (RecordType $type): Offer => new Offer(
                $type->label,
                ['type' => $type->name, 'as' => self::freeName($context, $type), 'set' => self::proposed($context, $type)],
                merge: true,
                at: $node->at,
                isChosen: $node->child('type')->text() === $type->name,
            ),
            array_values($types),
        );
        $type = $types[$node->child('type')->text() ?? ''] ?? null;
        if ($type === null) {
            return $context->gap(
                $node->child('type')->text() ?? 'choose what',
                $node->at,
                Editor::choose('What is made', $offers),
                'unknown_type',
                'Choose what kind of record is made.',
            );
        }
        $context->choice($type->label, WordRole::Field, $node->at, $offers, 'What is made');
        $context->glue('with');
        $assignments = Assignments::read($context, $node->child('set'), $type, true);
        $name = $node->child('as')->text() ?? $type->name;
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            return $context->problem(
                $node->child('as')->at,
                'wrong_type',
                'Later lines call the new record by a name of 1 to '.self::NAME_LENGTH.' characters.',
            );
        }
        if (isset($context->sheet->made[$name])) {
            return $context->problem($node->child('as')->at, 'name_taken', "A line above already calls its record ‘{$name}’.");
        }
        $context->sheet->made[$name] = $type;
        if ($assignments === null) {
            return null;
        }
        $given = array_map(static fn (Assignment $assignment): string => $assignment->field->name, $assignments->all);
        foreach ($type->ownFields() as $field) {
            if ($field->required && ! in_array($field->name, $given, true)) {
                return $context->problem($node->child('set')->at, 'required', ucfirst($type->one())." needs {$field->label}: add it.");
            }
        }

        return new self($type, $assignments, $name);
    }

    public function writes(RecordType $own): array
    {
        return [];
    }

    public function makes(): string
    {
        return $this->type->name;
    }

    public function perform(Performance $performance): void
    {
        $values = [];
        foreach ($this->assignments->all as $assignment) {
            try {
                $values[$assignment->field->name] = $assignment->value->for($assignment->field, $performance, null);
            } catch (InvalidValue $invalid) {
                if ($assignment->field->required) {
                    $performance->failed("The new {$this->type->inSentence()}", $invalid->getMessage());

                    return;
                }
                $performance->failed($assignment->field->label, $invalid->getMessage());
            }
        }
        $performance->made[$this->name] = $performance->create($this->type, $values);
    }

    private static function freeName(Context $context, RecordType $type): string
    {
        $name = $type->name;
        for ($count = 2; isset($context->sheet->made[$name]); $count++) {
            $name = "{$type->name}_{$count}";
        }

        return $name;
    }

    /** @return list<array<string, mixed>> what has to be filled in, and references that can only mean this record or what it refers to */
    private static function proposed(Context $context, RecordType $type): array
    {
        $set = [];
        foreach ($type->ownFields() as $field) {
            $own = array_values(array_filter(
                $context->type->ownFields(),
                static fn (Field $other): bool => $field->target !== null && $other->target === $field->target,
            ));
            $to = match (true) {
                $field->target === $context->type->name => ['kind' => 'this'],
                $own !== [] => ['kind' => 'copy', 'from' => $own[0]->name],
                $field->name === $type->owner => ['kind' => 'person', 'person' => ['kind' => 'owner']],
                $field->required => ['kind' => $field->name === $type->title ? 'text' : 'value'],
                default => null,
            };
            if ($to !== null) {
                $set[] = ['field' => $field->name, 'to' => $to];
            }
        }

        return $set;
    }
}
