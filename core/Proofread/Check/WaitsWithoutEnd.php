<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Line\AsksSignOff;

/** A step of a sign-off without a time to answer in: one person who stays silent keeps it open for good. */
final class WaitsWithoutEnd implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $remarks = [];
        foreach ($among->rule->lines as $placed) {
            $line = $placed->bare();
            // Where the record is locked as well, more than a look is wanted: NobodyDecides says so.
            foreach ($line instanceof AsksSignOff && ! $line->locks() ? $line->route()->steps : [] as $nth => $step) {
                if ($step->within === null) {
                    $at = "/lines/{$placed->place}/steps/{$nth}";
                    $remarks[] = new Remark(
                        Level::Look,
                        $at,
                        'waits_on',
                        'Step '.($nth + 1).' waits for an answer without end: whoever stays silent keeps it open.',
                        'Say within which time they are to answer, and what happens then.',
                        new Fix('Within 3 working days', "{$at}/within", ['amount' => 3, 'unit' => 'working_day']),
                    );
                }
            }
        }

        return $remarks;
    }
}
