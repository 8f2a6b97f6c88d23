<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use Closure;

/** What a record can be tested for. */
interface Test
{
    /** @return Closure(View): bool */
    public function compile(): Closure;
}
