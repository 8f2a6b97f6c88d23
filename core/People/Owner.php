<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Words\Words;

/** Whoever owns the record. */
final readonly class Owner implements PersonExpression
{
    public function __construct(private Field $field)
    {
    }

    public static function kind(): string
    {
        return 'owner';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the owner')->orSaid(
            'its owner', 'the record owner', 'the {}’s owner', 'the owner of {}', '(whoever|the person who|who) owns {}',
            '(whoever|the person who) has {}', 'the (responsible|person responsible)',
        )->slot('', new ItsType);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $field = $context->type->field($context->type->owner);

        return $field === null ? $context->problem(
            $node->at,
            'unknown_field',
            Words::say('{one} has no owner.', one: ucfirst($context->type->one())),
        ) : new self($field);
    }

    public function find(View $view): Found
    {
        $id = $view->record->value($this->field->name);
        $person = is_int($id) ? $view->facts->person($id) : null;

        return new Found($person, $person === null ? 'the record has no owner' : "owner {$person->name}");
    }

    public function route(): Route
    {
        return new Route(new Path([], $this->field));
    }
}
