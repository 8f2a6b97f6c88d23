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
                    level: Level::Look, at: "/lines/{$series[0]->place}", code: 'no_until',
                    message: Words::say('The series goes on to its last time, whatever happens meanwhile.'),
                    advice: Words::say('Say what ends it early.'), fix: $fix,
                ),
            ];
        }

        return count($later) < 2 ? [] : [
            new Remark(
                level: Level::Look, at: "/lines/{$later[1]->place}", code: 'no_until',
                message: Words::say('It goes on writing, even to somebody who has answered.'),
                advice: Words::say('Say what ends it early.'), fix: $fix,
            ),
        ];
    }
}
