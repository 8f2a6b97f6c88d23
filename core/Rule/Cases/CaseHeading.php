<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Condition\Condition;
use VividLedger\Rule\Line\Line;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;

/** A row between the lines of a rule that says which of those below it are done: where a case begins, or where cases end. */
interface CaseHeading extends Line
{
    public static function read(Context $context, Node $node): ?self;

    /** What it does to the cases above it. */
    public static function part(): CasePart;

    /** What has to hold; null where nothing has to. */
    public function condition(): ?Condition;

    /** As it reads in the ledger: "If Discount is over 20 %". */
    public function said(): string;
}
