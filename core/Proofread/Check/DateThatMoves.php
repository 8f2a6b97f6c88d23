<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Trigger\WaitsForDate;

/** A date that sets the rule off once for a record: when the date moves, nothing comes at the new one. */
final class DateThatMoves implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $rule = $among->rule;
        if (! $rule->trigger instanceof WaitsForDate || ! $rule->guard->isForGood() || $rule->again !== null) {
            return [];
        }
        $field = $rule->trigger->arriving()->field;
        $yearly = $rule->trigger->arriving()->yearly;
        if ($field->name === 'created_at' && ! $yearly) {
            return []; // It never moves.
        }
        // Each arrival of a date sets a rule off once by itself, so that "every time" is no flood.
        [$advice, $fix] = $yearly || $field->system
            ? [
                "Let it fire every time: {$field->label} comes only once ".($yearly ? 'a year.' : 'at each value.'),
                new Fix('Every time it comes', '/fires', ['kind' => 'every_time']),
            ]
            : [
                "Let it fire once for each value of {$field->label}.",
                new Fix("Once for each {$field->label}", '/fires', ['kind' => 'once_per_value', 'field' => $field->name]),
            ];

        return [
            new Remark(
                Level::Look,
                '/fires',
                'date_moves',
                "It fires once for each {$among->type()->inSentence()}, and not again when {$field->label} moves".($yearly
                    ? ' or comes round the next year' : '').'.',
                $advice,
                $fix,
            ),
        ];
    }
}
