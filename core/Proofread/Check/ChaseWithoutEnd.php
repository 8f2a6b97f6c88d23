<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Words\Words;

/** Messages that come later, with nothing that ends them early: whoever answers is chased on. */
final class ChaseWithoutEnd implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        if ($among->rule->until !== null) {
            return [];
        }
        $later = array_values(array_filter(
            $among->rule->lines,
            static fn ($placed): bool => $placed->timing !== null && $placed->isMessage(),
        ));
        $series = array_values(array_filter($later, static fn ($placed): bool => $placed->timing?->repeats() === true));
        $fix = new Fix(Words::say('Until it gets a reply'), '/until', ['kind' => 'happened', 'event' => 'reply']);
        if ($series !== []) {
            return [
                new Remark(
                    Level::Look,
                    "/lines/{$series[0]->place}",
                    'no_until',
                    Words::say('The series goes on to its last time, whatever happens meanwhile.'),
                    Words::say('Say what ends it early.'),
                    $fix,
                ),
            ];
        }

        return count($later) < 2 ? [] : [
            new Remark(
                Level::Look,
                "/lines/{$later[1]->place}",
                'no_until',
                Words::say('It goes on writing, even to somebody who has answered.'),
                Words::say('Say what ends it early.'),
                $fix,
            ),
        ];
    }
}
