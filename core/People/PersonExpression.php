<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\View;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** A way to find a person from a record: "the owner's manager". */
interface PersonExpression
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** Reads it from a rule file; null, with the problem noted, when it is unfinished. It words nothing by itself. */
    public static function read(Context $context, Node $node): ?self;

    public function find(View $view): Found;

    /** The way as plain steps, for a query; null when it depends on more than the record. */
    public function route(): ?Route;
}
