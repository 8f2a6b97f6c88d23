<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Schema\Field;

/** A way to say who decides that looks at an amount of money. */
interface AsksAmount
{
    public function amount(): Field;
}
