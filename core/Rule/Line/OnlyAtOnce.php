<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

/** A line that can be done as the rule fires, or never. */
interface OnlyAtOnce
{
    /** What is said to somebody who gives it a time. */
    public static function whyNow(): string;
}
