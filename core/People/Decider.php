<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Whoever said the last word on the latest sign-off of the record. */
final readonly class Decider implements PersonExpression
{
    public static function kind(): string
    {
        return 'decider';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('whoever decided')->orSaid(
            '(whoever|the person who|the one who) (decided|signed it off|approved it|declined it|said the last word)', 'the decider',
        );
    }

    public static function read(Context $context, Node $node): self
    {
        return new self;
    }

    public function find(View $view): Found
    {
        $id = $view->facts->signOffOn($view->record->type, $view->record->id)?->decider();
        $person = $id === null ? null : $view->facts->person($id);

        return new Found($person, $person === null ? 'nobody has decided' : "{$person->name}, who decided");
    }

    public function route(): null
    {
        return null;
    }
}
