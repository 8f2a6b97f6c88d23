<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Condition\QueryWriter;
use VividLedger\Facts\View;
use VividLedger\People\FoundPersonSlot;
use VividLedger\People\PersonExpressions;
use VividLedger\People\Who;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Whomever a person expression finds. */
final readonly class GivenPerson implements Given
{
    public function __construct(private Who $person)
    {
    }

    public static function kind(): string
    {
        return 'person';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{person}')->slot('person', new FoundPersonSlot);
    }

    public static function fits(Field $field): bool
    {
        return $field->type === FieldType::Person;
    }

    public static function offers(Context $context, Node $node, Field $field): array
    {
        return array_map(static fn (Offer $offer): Offer => new Offer(
            $offer->label,
            ['kind' => self::kind(), 'person' => $offer->value],
            $offer->group,
            $offer->hint,
        ), PersonExpressions::found($context));
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $person = PersonExpressions::read($context, $node->child('person'));
        if ($person === null) {
            return $context->gap(
                'choose a person', $node->at, $editor, 'wrong_type', Words::say(
                    'Choose whom {field} is compared with.',
                    field: $field->label,
                ),
            );
        }
        $context->word($context->said(self::shape(), $node->raw), WordRole::Person, $node->at, $editor);

        return new self($person);
    }

    public function value(View $view, Field $for): ?int
    {
        return $this->person->find($view)->person?->id;
    }

    public function paths(): array
    {
        return [];
    }

    public function query(QueryWriter $writer, Field $for): mixed
    {
        return $writer->personSide($this->person->route());
    }
}
