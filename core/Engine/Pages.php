<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Rule\Rule;

/** The pages of rules that were ever in force. */
interface Pages
{
    /** A page that a run stays on, whether or not it is in force; null when it no longer reads soundly. */
    public function page(int $rule, int $number): ?Rule;
}
