<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Facts\View;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** The list that a slip is passed on along: who is next of those not asked yet. Each kind is one file. */
interface NextInLine
{
    public static function kind(): string;

    public static function shape(): Shape;

    public static function label(): string;

    public static function read(Context $context, Node $node): ?self;

    /** @param  list<int>  $asked  ids of those who were asked already */
    public function next(View $view, array $asked): ?int;

    /** The field of the record that says whose turn it is. */
    public function field(): Field;
}
