<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Condition\All;
use VividLedger\Condition\Condition;
use VividLedger\Condition\Reasoning;
use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Proofread\Starts;
use VividLedger\Rule\Line\GivesTasks;
use VividLedger\Rule\Line\Placed;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Words\Words;

/** A task that still asks to be done when its record has long been closed. */
final class TaskOutlives implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $stage = $among->type()->stage();
        $closing = array_values(array_filter($stage->choices ?? [], static fn (Choice $choice): bool => $choice->closes));
        if ($stage === null || $closing === [] || ! $this->isOpenAtFirst($among, $stage, $closing)) {
            return [];
        }
        $values = array_map(static fn (Choice $choice): string => $choice->value, $closing);
        $closed = count($values) === 1 ? ['kind' => 'is', 'field' => $stage->name, 'value' => $values[0]]
            : ['kind' => 'one_of', 'field' => $stage->name, 'values' => $values];
        $one = Words::within($among->type()->label);

        return array_values(array_map(static fn (Placed $placed): Remark => new Remark(
            level: Level::Note, at: "/lines/{$placed->place}", code: 'task_outlives',
            message: Words::say('Once the {one} is closed, this task still asks to be done.', one: $one),
            advice: Words::say('Say when it lapses.'),
            fix: new Fix(Words::say('Lapses when the {one} is closed', one: $one), "/lines/{$placed->place}/lapses", $closed),
        ), array_filter(
            $among->rule->lines,
            static fn (Placed $placed): bool => $placed->bare() instanceof GivesTasks && $placed->lapses === null,
        )));
    }

    /**
     * Whether it gives its tasks while the record is open, as far as can be told: what is to be done once it is closed outlives it.
     *
     * @param  non-empty-list<Choice>  $closing
     */
    private function isOpenAtFirst(RuleAmongOthers $among, Field $stage, array $closing): bool
    {
        $starts = Starts::condition($among->rule);
        $isAt = static fn (Choice $choice): Condition => new All([$starts, Starts::is($stage, $choice->value)]);

        return array_filter($closing, static fn (Choice $choice): bool => Reasoning::canHold($isAt($choice))) === []
            && Reasoning::canHold($starts);
    }
}
