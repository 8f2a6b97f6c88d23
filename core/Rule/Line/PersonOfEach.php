<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\People\PersonExpressions;
use VividLedger\People\Who;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Elsewhere;
use VividLedger\Shape\WordedAs;

/** Whose list a record of another type stands on. */
final readonly class PersonOfEach extends WordedAs
{
    public function __construct(private Elsewhere $slot)
    {
    }

    public function read(Context $context, Node $node, Filled $around): ?Who
    {
        return PersonExpressions::word(ListSection::seen($context, $around), $node);
    }

    protected function slot(): Elsewhere
    {
        return $this->slot;
    }
}
