<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A slot whose value is spread over several keys of the object it is in. */
interface Spread extends Slot
{
    /** @return list<string> */
    public function keys(): array;
}
