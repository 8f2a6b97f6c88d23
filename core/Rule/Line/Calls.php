<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Call\KeptAnswer;

/** A line that calls an endpoint, which other lines can wait for. */
interface Calls extends Waitable
{
    /** @return list<KeptAnswer> what of the answer is kept */
    public function keeps(): array;
}
