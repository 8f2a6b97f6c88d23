<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Condition\Reasoning;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Line\AsksSignOff;
use VividLedger\Rule\Line\Placed;
use VividLedger\SignOff\RouteStep;
use VividLedger\Words\Words;

/** A sign-off that nobody can agree to: one that waits for what can never hold is not put in force; and one that wants too many. */
final class NobodyDecides implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $remarks = [];
        foreach ($among->rule->lines as $placed) {
            $line = $placed->bare();
            if ($line instanceof AsksSignOff) {
                foreach ($line->route()->steps as $nth => $step) {
                    array_push($remarks, ...array_filter([
                        $step->until === null || Reasoning::canHold($step->until) ? null : $this->never($placed, $nth),
                        $this->tooMany($placed, $nth, $step),
                    ]));
                }
            }
        }

        return $remarks;
    }

    private function never(Placed $placed, int $nth): Remark
    {
        return new Remark(
            Level::Blocks,
            "/lines/{$placed->place}/steps/{$nth}/until",
            'never_agreed',
            Words::say('Step {nth} is agreed to once a condition holds that never can.', nth: $nth + 1),
            Words::say('Change the condition, or take it away.'),
        );
    }

    private function tooMany(Placed $placed, int $nth, RouteStep $step): ?Remark
    {
        $most = $step->who->most();

        return $most === null || $step->needed === null || $step->needed <= $most ? null : new Remark(
            Level::Look,
            "/lines/{$placed->place}/steps/{$nth}/needed",
            'too_many_needed',
            Words::say(
                'Step {nth} wants {needed} to agree, and asks at most {most}: all of them have to.',
                nth: $nth + 1,
                needed: $step->needed,
                most: $most,
            ),
            Words::say('Ask more people, or want fewer to agree.'),
        );
    }
}
