<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Facts\PeopleFacts;
use VividLedger\House\Person;

/** The managers above somebody, absent ones too. Who has left is passed by; a ring ends where it began. */
final class Tree
{
    /** @return \Generator<int, Person> the nearest first */
    public static function above(?Person $person, PeopleFacts $facts): \Generator
    {
        $seen = [];
        while ($person !== null && ! isset($seen[$person->id])) {
            $seen[$person->id] = true;
            $person = $person->managerId === null ? null : $facts->person($person->managerId);
            if ($person !== null && $person->active && ! isset($seen[$person->id])) {
                yield $person;
            }
        }
    }
}
