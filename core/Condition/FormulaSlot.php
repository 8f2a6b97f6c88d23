<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Formula\Formula;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordedAs;

/** A formula, in quotes. */
final readonly class FormulaSlot extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?Formula
    {
        return FormulaReader::read($context, $node);
    }

    public function schema(): array
    {
        return Json::text();
    }

    protected function slot(): Quoted
    {
        return new Quoted;
    }
}
