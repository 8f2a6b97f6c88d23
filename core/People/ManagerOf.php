<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** The manager of whomever another expression finds. */
final readonly class ManagerOf implements PersonExpression
{
    private const MAX_LEVELS = 5;

    public function __construct(private Who $of)
    {
    }

    public static function kind(): string
    {
        return 'manager';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->growsOn('of')->says('{of}’s manager')
            ->orSaid('{of}’s (boss|supervisor|superior|line manager|team lead)', 'the (manager|boss|supervisor|line manager) of {of}')
            ->slot('of', new PersonSlot);
    }

    public static function read(Context $context, Node $node): ?self
    {
        if (self::levels($node) > self::MAX_LEVELS) {
            return $context->problem(
                $node->at,
                'too_deep',
                Words::say('Managers are followed at most {maxlevels} levels up.', maxlevels: self::MAX_LEVELS),
            );
        }
        $of = PersonExpressions::read($context, $node->child('of'));

        return $of === null ? null : new self($of);
    }

    /** How many managers up a file leads from here. */
    private static function levels(Node $node): int
    {
        return $node->kind() === self::kind() ? 1 + self::levels($node->child('of')) : 0;
    }

    public function route(): ?Route
    {
        $of = $this->of->route();

        return $of === null ? null : new Route($of->start, $of->levels + 1);
    }

    public function find(View $view): Found
    {
        $below = $this->of->find($view);
        if ($below->person === null) {
            return $below;
        }
        $manager = $below->person->managerId === null ? null : $view->facts->person($below->person->managerId);

        return new Found($manager, $manager === null ? "{$below->path} has no manager" : "{$below->path} → manager {$manager->name}");
    }
}
