<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Engine\View;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Node;

/** Whoever owns the record. */
final readonly class Owner implements PersonExpression
{
    public function __construct(private string $field)
    {
    }

    public static function kind(): string
    {
        return 'owner';
    }

    public static function read(Context $context, Node $node): self
    {
        return new self($context->type->owner);
    }

    public function wording(): string
    {
        return 'the owner';
    }

    public function find(View $view): Found
    {
        $id = $view->record->value($this->field);
        $person = is_int($id) ? $view->facts->person($id) : null;

        return new Found($person, $person === null ? 'the record has no owner' : "owner {$person->name}");
    }
}
