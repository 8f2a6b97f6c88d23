<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Line\FindsPeople;
use VividLedger\Words\Words;

/** A person expression that finds nobody on some of the records there are. */
final class FindsNobody implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        if ($among->census === null) {
            return [];
        }
        $remarks = [];
        $asked = [];
        foreach ($among->rule->lines as $placed) {
            $line = $placed->bare();
            foreach ($line instanceof FindsPeople ? $line->people() : [] as $key => $person) {
                $said = $person->wording();
                if (isset($asked[$said])) {
                    continue;
                }
                $asked[$said] = true;
                [$nobody, $of] = $among->census->withNobody($among->rule, $person);
                if ($nobody > 0) {
                    $plural = $of === 1 ? Words::within($among->type()->label) : Words::within($among->type()->plural);
                    $remarks[] = new Remark(
                        Level::Note,
                        "/lines/{$placed->place}/{$key}",
                        'finds_nobody',
                        Words::say(
                            '{who} is nobody on {nobody} of the {of} {plural} that meet the conditions now.',
                            who: mb_strtoupper(mb_substr($said, 0, 1)).mb_substr($said, 1),
                            nobody: $nobody,
                            of: $of,
                            plural: $plural,
                        ),
                        Words::say('Whoever stands in for nobody gets what is meant for them. Fill in who it is, or choose somebody else.'),
                    );
                }
            }
        }

        return $remarks;
    }
}
