<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Schema\Readable;

/** Something a condition can look at that is no field: it is made of what can be reached from a record. */
interface Derived extends Readable
{
    public function value(View $view): string|int|bool|null;
}
