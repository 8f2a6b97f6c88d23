<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\House\Person;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** One fixed person, named in the rule by their handle. */
final readonly class NamedPerson implements PersonExpression
{
    public function __construct(private Person $named)
    {
    }

    public static function kind(): string
    {
        return 'named';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{handle}')->slot('handle', new PersonName);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $handle = $node->child('handle')->text() ?? '';
        $person = $context->directory->personByHandle($handle);
        if ($person === null) {
            return $context->problem(
                $node->at,
                'unknown_person',
                $handle === ''
                    ? Words::say('Choose a person.')
                    : Words::say('There is no person ‘{handle}’. Choose another.', handle: $handle),
            );
        }
        if (! $person->active) {
            // The rule goes on with whoever took over; that somebody should look at it is a remark.
            $context->sheet->left[$node->at] = $person;
        }

        return new self($person);
    }

    public function route(): Route
    {
        return new Route($this->named->id);
    }

    public function find(View $view): Found
    {
        return new Found($view->facts->person($this->named->id), "named in the rule: {$this->named->name}");
    }
}
