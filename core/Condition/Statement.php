<?php

declare(strict_types=1);

namespace VividLedger\Condition;

/** A condition without parts, as reasoning sees it. */
interface Statement extends Condition
{
    public function atom(): Atom;
}
