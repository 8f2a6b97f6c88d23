<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Condition\Reasoning;
use VividLedger\Engine\EitherOr;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Proofread\Starts;
use VividLedger\Rule\Rule;
use VividLedger\Words\Words;

/** A rule of an either/or set whose every match an earlier rule of the set takes. */
final class Shadowed implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $own = $among->rule;
        if ($own->eitherOr === '') {
            return [];
        }
        $remarks = [];
        foreach ($among->others as $place => $other) {
            if ($other->eitherOr !== $own->eitherOr || $other->on !== $own->on) {
                continue;
            }
            $isEarlier = $place < $among->position;
            [$first, $later] = $isEarlier ? [$other, $own] : [$own, $other];
            if (! self::coversTrigger($first, $later) || ! Reasoning::implies(Starts::condition($later), $first->condition)
                || EitherOr::isNarrower($later, $first)) {
                // The narrower of two comes first, wherever it stands.
                continue;
            }
            $remarks[] = $isEarlier
                ? new Remark(
                    Level::Look,
                    '/onlyIf',
                    'shadowed',
                    Words::say(
                        'This rule never gets its turn: ‘{other}’ stands before it in “{eitherOr}” and takes all it would match.',
                        other: $other->name,
                        eitherOr: $own->eitherOr,
                    ),
                    Words::say('Move this rule before it in the list of rules, or narrow the other.'),
                )
                : new Remark(
                    Level::Look,
                    '/onlyIf',
                    'shadows',
                    Words::say(
                        'It takes all that ‘{other}’ would match, which stands behind it in “{eitherOr}”.',
                        other: $other->name,
                        eitherOr: $own->eitherOr,
                    ),
                    Words::say('Move this rule behind it, or narrow it.'),
                );
        }

        return $remarks;
    }

    private static function coversTrigger(Rule $first, Rule $later): bool
    {
        [$wide, $narrow] = [$first->trigger->watch(), $later->trigger->watch()];

        return $first->own && $later->own && $first->trigger->asksNoMore()
            && ($wide->fields === null || array_diff($narrow->keys(), $wide->keys()) === [])
            && ($wide->created || ! $narrow->created) && ($wide->deleted || ! $narrow->deleted) && $narrow->events === [];
    }
}
