<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\OneShape;
use VividLedger\Shape\WordedAs;

/** Whom a step asks: "the owner’s manager and Ulla Verne", "2 levels up from the owner". */
final readonly class ApproversSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?Approvers
    {
        return Deciders::read($context, $node);
    }

    protected function slot(): OneShape
    {
        return Kinds::once(self::class, static fn (): OneShape => new OneShape(static fn (): array => array_map(
            static fn (string $approvers): Shape => $approvers::shape(),
            Deciders::all(),
        ), 'approvers'));
    }
}
