<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** A kind of question. Each is one file with its meaning, its wording and its checks. */
interface Asking
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** As offered: "one of some answers". */
    public static function label(): string;

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node): ?Question;
}
