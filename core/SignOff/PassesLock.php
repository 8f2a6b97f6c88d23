<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Words\Words;

/**
 * What is written to a record though a sign-off has locked it. Nothing else is: no save, import, merge, reversal, hook or rule. Each of
 * these would be lost if it had to wait, or nobody could do what they were asked for.
 */
enum PassesLock: string
{
    /** What the rule lets whoever decides put right; it is part of their answer. */
    case Decider = 'decider';

    /** What somebody outside answers, once, to the questions of a slip. */
    case SlipAnswer = 'slip';

    /** What another system said to a call: it did happen over there. */
    case CallAnswer = 'call';

    /** Whose turn it is, as a slip goes along its list. */
    case PassedOn = 'passed_on';

    /** What belongs to somebody who leaves has to belong to somebody. */
    case Leaving = 'leaving';

    /** Stands under the entry of what was written. */
    public function said(): string
    {
        return match ($this) {
            self::Decider => Words::say('It is locked meanwhile; whoever decides may put this right.'),
            self::SlipAnswer => Words::say('It is locked meanwhile; what a slip answers is kept all the same.'),
            self::CallAnswer => Words::say('It is locked meanwhile; what a call answers is kept all the same.'),
            self::PassedOn => Words::say('It is locked meanwhile; its slip goes on all the same.'),
            self::Leaving => Words::say('It is locked meanwhile; whoever takes over gets it all the same.'),
        };
    }
}
