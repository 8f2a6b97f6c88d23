<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\People\RoleSlot;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** Everybody at work who has a role. */
final readonly class RoleAtWork implements Approvers
{
    public function __construct(private string $role)
    {
    }

    public static function kind(): string
    {
        return 'role';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Deciders::chooser(...))->says('everybody with the role {role}')
            ->orSaid('(everyone|everybody|all people) (with role|in the role of|who is an|who is a) {role}', '(every|each) {role}')
            ->slot('role', new RoleSlot);
    }

    public static function label(): string
    {
        return 'a role';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->text('role'));
    }

    public function people(View $view): array
    {
        return $view->facts->role($this->role);
    }

    public function followsTree(): bool
    {
        return false;
    }

    public function most(): null
    {
        return null;
    }
}
