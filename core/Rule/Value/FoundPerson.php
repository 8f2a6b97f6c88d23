<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\People\FoundPersonSlot;
use VividLedger\People\PersonExpressions;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Whomever a person expression finds. */
final readonly class FoundPerson implements AssignedValue
{
    public function __construct(private Who $expression)
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

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return array_map(static fn (Offer $offer): Offer => new Offer(
            $offer->label,
            ['kind' => self::kind(), 'person' => $offer->value],
            $offer->group,
            $offer->hint,
        ), array_values(array_filter(
            PersonExpressions::offers($context),
            static fn (Offer $offer): bool => $offer->group !== 'People',
        )));
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $expression = PersonExpressions::read($context, $node->child('person'));
        if ($expression === null) {
            return $context->gap('choose a person', $node->at, $editor, 'missing', Words::say(
                'Choose who {field} becomes.',
                field: $field->label,
            ));
        }
        $context->word($expression->wording(), WordRole::Person, $node->at, $editor);

        return new self($expression);
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): int
    {
        $found = $this->expression->find($performance->view());

        return $found->person->id ?? throw new InvalidValue(
            'nobody',
            Words::say('Nobody was found for {field}: {path}.', field: $field->label, path: $found->path),
        );
    }
}
