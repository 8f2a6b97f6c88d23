<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

use VividLedger\People\Deputy;
use VividLedger\People\Found;
use VividLedger\People\Who;

/**
 * Finds a person for a line. Whoever is absent is stood in for by their deputy, whoever has left by those who took over; where there is
 * nobody, by the company's fallback. Turns are taken.
 */
final class Finder
{
    public static function find(Who $expression, ActionContext $performance): Found
    {
        $found = $expression->find($performance->view());
        if ($found->person !== null && $found->person->isAtWork()) {
            if ($found->turnOf !== null) {
                $performance->facts->takeTurn($found->turnOf, $found->person->id);
            }

            return $found;
        }
        $path = match (true) {
            $found->person === null => $found->path,
            $found->person->away => "{$found->path}, who is absent",
            default => "{$found->path}, who has left",
        };
        $deputy = Deputy::of($found->person, $performance->facts);
        if ($deputy !== null) {
            $how = $found->person?->active === true ? 'is the deputy' : 'took over';

            return new Found($deputy, "{$path}; {$deputy->name} {$how}", stoodIn: true);
        }
        $standIn = $performance->facts->fallbackPerson();
        $standIn = $standIn?->isAtWork() === true ? $standIn : null;

        return new Found(
            $standIn,
            $standIn === null ? "{$path}; nobody stands in" : "{$path}; {$standIn->name} stands in",
            stoodIn: $standIn !== null,
        );
    }
}
