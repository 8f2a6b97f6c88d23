<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** One thing a rule does. Each kind is one file with its meaning, its wording and its checks. */
interface Line extends Performed
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** As offered: "Set fields". */
    public static function label(): string;

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node): ?self;
}
