<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Line\Written;
use VividLedger\Rule\Trigger\WatchesFields;
use VividLedger\Words\Words;

/** A rule that waits for a change of a field which nobody but itself sets. */
final class OwnEcho implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $names = $among->rule->trigger instanceof WatchesFields ? $among->rule->trigger->fields() : null;
        if ($names === null || $names === []) {
            return [];
        }
        $own = array_map(
            static fn (Written $written): string => $written->field,
            array_filter($among->written($among->rule), static fn (Written $written): bool => $written->isOwn),
        );
        if (array_diff($names, $own) !== []) {
            return [];
        }
        foreach ($among->others as $other) {
            foreach ($among->written($other) as $written) {
                if ($written->type === $among->rule->on && in_array($written->field, $names, true)) {
                    return [];
                }
            }
        }

        return [
            new Remark(
                Level::Note,
                '/when',
                'own_echo',
                Words::say('It waits for a change of a field that no rule but this one sets. Its own change does not start it again: '
                    .'only a person’s does.'),
                Words::say('If nobody sets the field by hand, let it wait for something else.'),
            ),
        ];
    }
}
