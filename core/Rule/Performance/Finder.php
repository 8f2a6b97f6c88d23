<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

use VividLedger\People\Found;
use VividLedger\People\Who;

/** Finds a person for a line: whoever is not there or has left is stood in for by the company's fallback, and turns are taken. */
final class Finder
{
    public static function find(Who $expression, Performance $performance): Found
    {
        $found = $expression->find($performance->view());
        if ($found->person !== null && $found->person->active) {
            if ($found->turnOf !== null) {
                $performance->facts->takeTurn($found->turnOf, $found->person->id);
            }

            return $found;
        }
        $path = $found->person === null ? $found->path : "{$found->path}, who has left";
        $standIn = $performance->facts->fallbackPerson();
        $standIn = $standIn?->active === true ? $standIn : null;

        return new Found(
            $standIn,
            $standIn === null ? "{$path}; nobody stands in" : "{$path}; {$standIn->name} stands in",
            stoodIn: $standIn !== null,
        );
    }
}
