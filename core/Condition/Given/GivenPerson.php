<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Condition\QueryWriter;
use VividLedger\Facts\View;
use VividLedger\People\FoundPersonSlot;
use VividLedger\People\PersonExpression;
use VividLedger\Schema\Field;
use VividLedger\Shape\Shape;
use VividLedger\Shape\WordRole;

/** Whomever a person expression finds. */
final readonly class GivenPerson implements Given
{
    public function __construct(private PersonExpression $person)
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

    public function value(View $view, Field $for): ?int
    {
        return $this->person->find($view)->person?->id;
    }

    public function wording(): string
    {
        return $this->person->wording();
    }

    public function role(): WordRole
    {
        return WordRole::Person;
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
