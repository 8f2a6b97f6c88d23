<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Trigger\WaitsForDate;
use VividLedger\Words\Words;

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
                $yearly ? Words::say('Let it fire every time: {field} comes only once a year.', field: $field->label)
                    : Words::say('Let it fire every time: {field} comes only once at each value.', field: $field->label),
                new Fix(Words::say('Every time it comes'), '/fires', ['kind' => 'every_time']),
            ]
            : [
                Words::say('Let it fire once for each value of {field}.', field: $field->label),
                new Fix(
                    Words::say('Once for each {field}', field: $field->label),
                    '/fires',
                    ['kind' => 'once_per_value', 'field' => $field->name],
                ),
            ];

        return [
            new Remark(
                level: Level::Look, at: '/fires', code: 'date_moves',
                message: $yearly ? Words::say(
                    'It fires once for each {record}, and not again when {field} moves or comes round the next year.',
                    record: Words::within($among->type()->label),
                    field: $field->label,
                ) : Words::say(
                    'It fires once for each {record}, and not again when {field} moves.',
                    record: Words::within($among->type()->label),
                    field: $field->label,
                ),
                advice: $advice, fix: $fix,
            ),
        ];
    }
}
