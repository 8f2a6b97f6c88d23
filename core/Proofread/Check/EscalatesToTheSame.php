<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Line\Climbs;
use VividLedger\Rule\Line\GivesTasks;
use VividLedger\Words\Words;

/** An escalation whose first rung goes to the very person who has the task. */
final class EscalatesToTheSame implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $assignees = [];
        $remarks = [];
        foreach ($among->rule->lines as $placed) {
            $line = $placed->bare();
            foreach ($line instanceof GivesTasks ? $line->people() : [] as $person) {
                $assignees[$person->wording()] = $placed->place + 1;
            }
            foreach ($line instanceof Climbs ? $line->ladder()->rungs : [] as $rung) {
                $said = $rung->person->wording();
                if (isset($assignees[$said])) {
                    $remarks[] = new Remark(
                        Level::Look,
                        "/lines/{$placed->place}",
                        'same_person',
                        Words::say(
                            'Rung {rung} goes to {said}, who has the task of line {assignees} already.',
                            rung: $rung->number,
                            said: $said,
                            assignees: $assignees[$said],
                        ),
                        Words::say('Let it go to somebody else, such as their manager.'),
                    );
                }
            }
        }

        return $remarks;
    }
}
