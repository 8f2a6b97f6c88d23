<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\Facts\PeopleFacts;
use VividLedger\House\Person;

/** Who stands in for somebody who is absent, or has taken over from somebody who has left. */
final class Deputy
{
    /** The nearest who is at work: a deputy who is absent too has one of their own. Null when there is none. */
    public static function of(?Person $person, PeopleFacts $facts): ?Person
    {
        $seen = [];
        while ($person !== null && ! $person->isAtWork() && ! isset($seen[$person->id])) {
            $seen[$person->id] = true;
            $person = $person->deputyId === null ? null : $facts->person($person->deputyId);
            if ($person?->isAtWork() === true) {
                return $person;
            }
        }

        return null;
    }
}
