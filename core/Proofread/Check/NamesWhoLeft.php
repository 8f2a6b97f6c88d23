<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Words\Words;

/** A person whom the rule names and who has left the company. The rule goes on, with somebody in their place. */
final class NamesWhoLeft implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $remarks = [];
        foreach ($among->rule->left as $at => $person) {
            $remarks[] = new Remark(
                Level::Look,
                $at,
                'names_who_left',
                Words::say('{person} has left the company.', person: $person->name),
                Words::say('Whoever took over from them gets what is meant for them, or else whoever stands in for nobody. '
                    .'Choose somebody else.'),
            );
        }

        return $remarks;
    }
}
