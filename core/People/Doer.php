<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;

/** Whoever made the change that started the rule. */
final readonly class Doer implements PersonExpression
{
    public static function kind(): string
    {
        return 'doer';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('whoever made the change')->orSaid(
            '(whoever|the person who|the one who|who) (changed|saved|edited|did) {}',
            '(the person|the one|who|whoever) who made the change',
            'who made the change', '(whoever|the person who|the one who) (is making|makes|does) the change', 'the one making the change',
            'the person making the change',
        )->slot('', new ItsType);
    }

    public static function read(Context $context, Node $node): self
    {
        return new self;
    }

    public function find(View $view): Found
    {
        $id = $view->change === null ? null : $view->change->actor ?? $view->change->alteration()->actor;
        $person = $id === null ? null : $view->facts->person($id);

        return new Found($person, $person === null ? 'nobody in person made the change' : "{$person->name}, who made the change");
    }

    public function route(): null
    {
        return null;
    }
}
