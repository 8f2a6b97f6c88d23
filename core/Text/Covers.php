<?php

declare(strict_types=1);

namespace VividLedger\Text;

/** A slot that stands for several keys of the object it is in. */
interface Covers extends Slot
{
    /** @return list<string> */
    public function keys(): array;
}
