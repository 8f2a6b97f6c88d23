<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** The parts of a rule page. */
enum Part: string
{
    case When = 'when';
    case Group = 'group';
    case Condition = 'condition';
    case Fires = 'fires';
    case Line = 'line';
    case Until = 'until';
    case Never = 'never';
}
