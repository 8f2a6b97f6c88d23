<?php

declare(strict_types=1);

namespace VividLedger\People;

/** Names, and the way back from a handle; what reading a rule needs to know of a company besides its schema. */
interface Directory extends Names
{
    public function personByHandle(string $handle): ?Person;
}
