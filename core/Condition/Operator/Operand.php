<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

/** How many values an operator compares with. */
enum Operand: string
{
    case Nothing = 'nothing';
    case One = 'one';
    case Many = 'many';
}
