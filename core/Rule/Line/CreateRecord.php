<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Record\InvalidValue;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Words\Words;

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
        )->slot('type', new MadeType)->slot('set', new AssignmentsSlot(
            static fn (Scope $scope, array $around): ?RecordType => $scope->schema->type(
                is_string($around['type'] ?? null) ? $around['type'] : '',
            ),
            isNew: true,
        ))->slot('as', new Quoted(self::NAME_LENGTH))->needs('set')->apart('as');
    }

    public static function label(): string
    {
        return 'Make a related record';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);
        $type = $context->schema->type($node->child('type')->text() ?? '');
        if ($type === null) {
            return null;
        }
        $name = $node->child('as')->text() ?? $type->name;
        if ($name === '' || mb_strlen($name) > self::NAME_LENGTH) {
            return $context->problem(
                $node->child('as')->at,
                'wrong_type',
                Words::say('Later lines call the new record by a name of 1 to {most} characters.', most: self::NAME_LENGTH),
            );
        }
        if (isset($context->sheet->made[$name])) {
            return $context->problem(
                $node->child('as')->at,
                'name_taken',
                Words::say('A line above already calls its record ‘{name}’.', name: $name),
            );
        }
        $context->sheet->made[$name] = $type;
        if ($read === null) {
            return null;
        }
        $assignments = $read->the('set', Assignments::class);
        $given = array_map(static fn (Assignment $assignment): string => $assignment->field->name, $assignments->all);
        foreach ($type->ownFields() as $field) {
            if ($field->required && ! in_array($field->name, $given, true)) {
                return $context->gap(
                    "add {$field->label}",
                    "{$node->child('set')->at}/".count($node->child('set')->items()),
                    Editor::begin(['field' => $field->name]),
                    'required',
                    Words::say('{one} needs {field}: add it.', one: ucfirst($type->one()), field: $field->label),
                );
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

    public function perform(ActionContext $performance): void
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
}
