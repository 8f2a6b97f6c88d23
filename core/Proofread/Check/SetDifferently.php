<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Condition\All;
use VividLedger\Condition\Reasoning;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Proofread\Starts;
use VividLedger\Rule\Line\Written;
use VividLedger\Rule\Rule;
use VividLedger\Words\Words;

/** Two rules that set the same field differently on the same change: the later one wins, and the order decides what a record says. */
final class SetDifferently implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $own = $among->rule;
        $remarks = [];
        foreach ($own->lines as $placed) {
            foreach ($placed->timing === null ? $among->writtenBy($own, $placed) : [] as $written) {
                foreach ($among->others as $other) {
                    $theirs = $this->differing($among, $other, $written);
                    if ($theirs !== null && $this->meet($own, $other)
                        && Reasoning::canHold(new All([Starts::condition($own), Starts::condition($other)]))) {
                        $field = $among->schema->types[$written->type]->field($written->field);
                        $label = $field->label ?? $written->field;
                        $remarks[] = new Remark(
                            Level::Look,
                            "/lines/{$placed->place}",
                            'clash',
                            Words::say(
                                '‘{other}’ sets {label} to something else on the same change; the rule that stands later wins.',
                                other: $other->name,
                                label: $label,
                            ),
                            Words::say('Put both into an either/or set, or let their conditions exclude each other.'),
                        );
                        break 2;
                    }
                }
            }
        }

        return $remarks;
    }

    private function differing(RuleAmongOthers $among, Rule $other, Written $mine): ?Written
    {
        foreach ($other->lines as $placed) {
            foreach ($placed->timing === null ? $among->writtenBy($other, $placed) : [] as $written) {
                if ($written->isOwn && $mine->isOwn && $written->type === $mine->type && $written->field === $mine->field
                    && $written->isFixed && $mine->isFixed && $written->value !== $mine->value) {
                    return $written;
                }
            }
        }

        return null;
    }

    /** Whether one change can start both. */
    private function meet(Rule $one, Rule $other): bool
    {
        if ($one->on !== $other->on || ! $one->own || ! $other->own || ($one->eitherOr !== '' && $one->eitherOr === $other->eitherOr)) {
            return false;
        }
        [$mine, $theirs] = [$one->trigger->watch(), $other->trigger->watch()];

        return ($mine->created && $theirs->created) || ($mine->deleted && $theirs->deleted) || array_intersect(
            array_map(static fn ($event): string => $event->value, $mine->events),
            array_map(static fn ($event): string => $event->value, $theirs->events),
        ) !== []
            || ($mine->fields !== [] && $theirs->fields !== []
                && ($mine->fields === null || $theirs->fields === null || array_intersect($mine->fields, $theirs->fields) !== []));
    }
}
