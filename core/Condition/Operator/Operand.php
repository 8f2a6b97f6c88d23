<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

/** What an operator compares with. */
enum Operand: string
{
    case Nothing = 'nothing';
    case One = 'one';
    case Many = 'many';
    case Span = 'span';     // an amount of time from now, such as 7 days
}
