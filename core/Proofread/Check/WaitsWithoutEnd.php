<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Line\AsksSignOff;
use VividLedger\Words\Words;

/**
 * A step of a sign-off without a time to answer in: one person who stays silent keeps it open for good. Where the record is locked
 * meanwhile, such a rule is not put in force.
 */
final class WaitsWithoutEnd implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $remarks = [];
        foreach ($among->rule->lines as $placed) {
            $line = $placed->bare();
            if (! $line instanceof AsksSignOff) {
                continue;
            }
            foreach ($line->route()->steps as $nth => $step) {
                if ($step->within === null) {
                    $remarks[] = self::remark("/lines/{$placed->place}/steps/{$nth}", Words::say(
                        'Step {nth}',
                        nth: $nth + 1,
                    ), $line->locks());
                }
            }
        }

        return $remarks;
    }

    private static function remark(string $at, string $step, bool $locks): Remark
    {
        return new Remark(
            level: $locks ? Level::Blocks : Level::Look, at: $at, code: $locks ? 'locked_for_good' : 'waits_on',
            message: $locks ? Words::say(
                '{step} has no time to answer in, and the record is locked until it is answered: it could stay so for good.',
                step: $step,
            )
            : Words::say('{step} waits for an answer without end: whoever stays silent keeps it open.', step: $step),
            advice: $locks ? Words::say('Say within which time they are to answer, or leave the record open.')
            : Words::say('Say within which time they are to answer, and what happens then.'),
            fix: new Fix(Words::say('Within 3 working days'), "{$at}/within", ['amount' => 3, 'unit' => 'working_day']),
        );
    }
}
