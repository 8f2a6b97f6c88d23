<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Condition\All;
use VividLedger\Condition\Condition;
use VividLedger\Condition\None;
use VividLedger\Condition\Reasoning;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Proofread\Starts;
use VividLedger\Rule\Cases\Cases;
use VividLedger\Words\Words;

/** A case whose turn never comes: its conditions never hold, or only where a case above it has held already. */
final class CaseNeverComes implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $remarks = [];
        foreach ($among->rule->lines as $placed) {
            if ($placed->line instanceof Cases) {
                // Of cases that are decided later nobody knows what the record is like by then.
                $known = $placed->timing === null && $placed->under === null ? [Starts::condition($among->rule)] : [];
                array_push($remarks, ...self::ofCases($placed->line, $known));
            }
        }

        return $remarks;
    }

    /**
     * @param  list<Condition>  $known  what is known to hold when they are decided
     * @return list<Remark>
     */
    private static function ofCases(Cases $cases, array $known): array
    {
        $remarks = [];
        $above = [];
        foreach ($cases->branches as $branch) {
            $own = $branch->condition === null ? [] : [$branch->condition];
            $isPossible = Reasoning::canHold(new All([...$known, ...$own]));
            if (! $isPossible || ! Reasoning::canHold(new All([...$known, ...$own, ...($above === [] ? [] : [new None($above)])]))) {
                $remarks[] = new Remark(
                    Level::Look,
                    "/lines/{$branch->place}",
                    'never',
                    $isPossible ? Words::say('This case never comes: the cases above it take all that it would.')
                        : Words::say('This case never comes: its conditions cannot hold here.'),
                    Words::say('Change its conditions, put it further up, or remove it.'),
                );
            }
            array_push($above, ...$own);
        }

        return $remarks;
    }
}
