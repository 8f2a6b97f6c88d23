<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Whoever asked for the latest sign-off of the record. */
final readonly class Asker implements PersonExpression
{
    public static function kind(): string
    {
        return 'asker';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('whoever asked for it')->orSaid(
            '(whoever|the person who|the one who) asked (for it|for the sign-off|for approval)', 'the (asker|requester)',
        );
    }

    public static function read(Context $context, Node $node): self
    {
        return new self;
    }

    public function find(View $view): Found
    {
        $id = $view->facts->signOffOn($view->record->type, $view->record->id)?->asker;
        $person = $id === null ? null : $view->facts->person($id);

        return new Found($person, $person === null ? 'nobody in person asked for a sign-off' : "{$person->name}, who asked for it");
    }

    public function route(): null
    {
        return null;
    }
}
