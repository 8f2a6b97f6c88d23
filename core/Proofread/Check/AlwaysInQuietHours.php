<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Words\Words;

/** A line whose time of day the quiet hours never allow: it always comes at another. */
final class AlwaysInQuietHours implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $hours = $among->rule->limits?->hours;
        $remarks = [];
        if ($hours === null) {
            return [];
        }
        foreach ($among->rule->lines as $placed) {
            $at = $among->line($placed)->child('at')->child('time');
            $time = $at->text();
            if ($placed->timing !== null && $time !== null && ($time < $hours[0] || $time >= $hours[1])) {
                $remarks[] = new Remark(
                    level: Level::Look, at: "/lines/{$placed->place}/at", code: 'quiet_hours',
                    message: Words::say('{time} is always in the quiet hours, so the line waits until {hours}.', time: $time,
                        hours: $hours[0]),
                    advice: Words::say('Give it a time that is allowed.'),
                    fix: new Fix(Words::say('At {hours}', hours: $hours[0]), $at->at, $hours[0]),
                );
            }
        }

        return $remarks;
    }
}
