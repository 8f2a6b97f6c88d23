<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Words\Words;

/** "Every time" on any change, with a message: a letter at each save. */
final class MessageAtEachSave implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $rule = $among->rule;
        $isAnyChange = $rule->own && $rule->trigger->watch()->fields === null;
        if ($rule->guard->remembers() || $rule->guard->wantsTurn() || ! $isAnyChange) {
            return [];
        }
        foreach ($rule->lines as $placed) {
            if ($placed->isMessage()) {
                return [
                    new Remark(
                        level: Level::Look, at: '/fires', code: 'each_save',
                        message: Words::say('It sends a message at each save of the record, as long as the conditions hold.'),
                        advice: Words::say('Let it fire when the conditions become true, or once.'),
                        fix: new Fix(Words::say('When the conditions become true'), '/fires', ['kind' => 'becomes_true']),
                    ),
                ];
            }
        }

        return [];
    }
}
