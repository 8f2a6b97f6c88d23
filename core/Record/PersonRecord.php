<?php

declare(strict_types=1);

namespace VividLedger\Record;

use VividLedger\House\Person;
use VividLedger\Schema\People;

/** A person as conditions see one behind a person field: a record of the type "person", which nobody sets. */
final class PersonRecord
{
    public static function of(Person $person): Record
    {
        $filled = static fn (string $text): ?string => $text === '' ? null : $text;

        return new Record(People::TYPE, $person->id, 1, [
            'name' => $filled($person->name), 'team' => $filled($person->team), 'role' => $filled($person->role),
            'manager' => $person->managerId,
            'email' => $filled($person->email),
        ]);
    }
}
