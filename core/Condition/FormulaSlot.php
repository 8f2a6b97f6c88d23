<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Formula\Formula;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** A formula, in quotes. */
final readonly class FormulaSlot implements Worded
{
    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return (new Quoted)->print($json, $scope, $around);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return (new Quoted)->parse($typed, $at, $scope, $around);
    }

    public function read(Context $context, Node $node, Filled $around): ?Formula
    {
        return FormulaReader::read($context, $node);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return Json::text();
    }
}
