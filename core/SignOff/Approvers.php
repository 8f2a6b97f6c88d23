<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\View;
use VividLedger\House\Person;

/** Whom a step of a route asks. */
interface Approvers
{
    /** @return list<Person> in the order they are asked; none when nobody is found */
    public function people(View $view): array;
}
