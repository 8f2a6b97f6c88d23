<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;

/** Whoever created the record. */
final readonly class Creator implements PersonExpression
{
    public static function kind(): string
    {
        return 'creator';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the creator')->orSaid(
            'its creator', 'the {}’s creator', 'the creator of {}',
            '(whoever|who|the person who|the one who|the colleague who) (created|made|opened|entered|added|raised) {}',
        )->slot('', new ItsType);
    }

    public static function read(Context $context, Node $node): self
    {
        return new self;
    }

    public function route(): Route
    {
        return new Route(new Path([], new Field('created_by', 'Created by', FieldType::Person, system: true)));
    }

    public function find(View $view): Found
    {
        $id = $view->record->value('created_by');
        $person = is_int($id) ? $view->facts->person($id) : null;

        return new Found($person, $person === null ? 'the record has no creator' : "creator {$person->name}");
    }
}
