<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Condition\All;
use VividLedger\Condition\Reasoning;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Proofread\Starts;
use VividLedger\Rule\Line\Placed;
use VividLedger\Words\Words;

/** Lines behind one that brings the until about, or that closes the record; and a run that is over as it begins. */
final class AfterTheEnd implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $rule = $among->rule;
        $remarks = [];
        $own = array_values(array_filter($rule->lines, static fn (Placed $placed): bool => $placed->timing !== null));
        if ($rule->until !== null && $own !== [] && Reasoning::implies(Starts::condition($rule), $rule->until)
            && Reasoning::canHold(Starts::condition($rule))) {
            $remarks[] = new Remark(
                Level::Look,
                '/until',
                'ends_at_once',
                Words::say('The until holds whenever the rule fires, so none of the later lines ever comes.'),
                Words::say('Let it wait for something that is not so from the start.'),
            );
        }
        foreach ($rule->lines as $placed) {
            $end = $this->ending($among, $placed);
            $closed = $this->closing($among, $placed);
            if ($remarks !== [] || ($end === null && $closed === null)) {
                continue;
            }
            foreach ($own as $later) {
                if (self::seconds($later) > self::seconds($placed)) {
                    $line = Words::say('line {place}', place: $placed->place + 1);
                    $remarks[] = $end !== null
                        ? new Remark(
                            Level::Look,
                            "/lines/{$later->place}",
                            'after_the_end',
                            Words::say('This line never comes: {line} sets {end}, and that is what ends the rule.', line: $line, end: $end),
                            Words::say('Move it before that line, or change the until.'),
                        )
                        : new Remark(
                            Level::Look,
                            "/lines/{$later->place}",
                            'after_closing',
                            Words::say(
                                'This line comes after {line} has closed the {record} ({closed}).',
                                line: $line,
                                record: Words::within($among->type()->label),
                                closed: $closed,
                            ),
                            Words::say('Move it before that line, or say in an until what ends the rule.'),
                        );
                    break;
                }
            }
        }

        return $remarks;
    }

    /** The field that the line sets, when what it sets makes the until hold. */
    private function ending(RuleAmongOthers $among, Placed $placed): ?string
    {
        $set = [];
        $label = null;
        foreach ($among->writtenBy($among->rule, $placed) as $written) {
            $field = $among->type()->field($written->field);
            if ($written->isOwn && $written->isFixed && $field !== null) {
                $set[] = Starts::is($field, $written->value);
                $label ??= $field->label;
            }
        }

        return $set !== [] && $among->rule->until !== null && Reasoning::implies(new All($set), $among->rule->until) ? $label : null;
    }

    /** "Status: Closed", when the line sets the record to a value that closes it. */
    private function closing(RuleAmongOthers $among, Placed $placed): ?string
    {
        foreach ($among->writtenBy($among->rule, $placed) as $written) {
            $field = $written->isOwn && $written->isFixed ? $among->type()->field($written->field) : null;
            foreach ($field->choices ?? [] as $choice) {
                if ($choice->closes && $choice->value === $written->value) {
                    return "{$field?->label}: {$choice->label}";
                }
            }
        }

        return null;
    }

    private static function seconds(Placed $placed): int
    {
        return $placed->timing?->seconds() ?? 0;
    }
}
