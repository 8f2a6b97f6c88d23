<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordedAs;

/** To whom it is passed on; asked for as soon as it is to be passed on. */
final readonly class InsteadSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?Who
    {
        return $this->slot()->read($context, $node, $around);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($around->any('late', WhenLate::class) === WhenLate::PassOn) {
            $context->glue('to');
            $this->slot()->read($context, $node, $around);
        }
    }

    protected function slot(): PersonSlot
    {
        return new PersonSlot;
    }
}
