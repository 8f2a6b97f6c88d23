<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\People\FoundPersonSlot;
use VividLedger\People\PersonExpression;
use VividLedger\People\PersonExpressions;
use VividLedger\People\PersonSlot;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\Performance;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Shape\WordRole;

/** Whomever a person expression finds. */
final readonly class FoundPerson implements AssignedValue
{
    public function __construct(private PersonExpression $expression)
    {
    }

    public static function kind(): string
    {
        return 'person';
    }

    public static function shape(): Shape
    {
        // A name by itself is read as the value of the field.
        return Shape::of(self::kind())->says('{found}')->says('the person {person}')
            ->slot('found', new Keyed('person', new FoundPersonSlot))->slot('person', new PersonSlot);
    }

    public static function deeds(): null
    {
        return null;
    }

    public static function fits(Field $field): bool
    {
        return $field->type === FieldType::Person;
    }

    public static function label(Field $field): ?string
    {
        return null;
    }

    public static function read(Context $context, Node $node, Field $field): ?self
    {
        $expression = PersonExpressions::read($context, $node->child('person'));
        if ($expression === null) {
            return $context->gap('choose a person', $node->at, Edit::SetValue, 'missing', "Choose who {$field->label} becomes.");
        }
        $context->word($expression->wording(), WordRole::Person, $node->at, Edit::SetValue);

        return new self($expression);
    }

    public function for(Field $field, Performance $performance, ?Record $target): int
    {
        $found = $this->expression->find($performance->view());

        return $found->person->id ?? throw new InvalidValue('nobody', "Nobody was found for {$field->label}: {$found->path}.");
    }
}
