<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\Condition\Condition;
use VividLedger\Condition\Reasoning;
use VividLedger\Condition\Tree;
use VividLedger\Proofread\Fix;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Placement;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Proofread\Starts;
use VividLedger\Shape\Node;
use VividLedger\Words\Words;

/** Conditions that can never hold, always hold, or contradict each other. */
final class ConditionsHold implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $rule = $among->rule;
        $remarks = $this->tree($rule->condition, $among->file->child('onlyIf'), Words::say('the rule can never fire'));
        if ($remarks === [] && ! Reasoning::canHold(Starts::condition($rule))) {
            $remarks[] = new Remark(
                Level::Look,
                '/when',
                'never',
                Words::say('The rule can never fire: the value its trigger waits for does not meet its conditions.'),
                Words::say('Change the value, or the conditions.'),
            );
        }
        // On a record that was there before they held already, and a new one it does not see.
        if ($rule->guard->wantsTurn() && $rule->own && ! $rule->trigger->watch()->created && $rule->trigger->watch()->events === []
            && Reasoning::alwaysHolds($rule->condition)) {
            $remarks[] = new Remark(
                level: Level::Look, at: '/fires', code: 'never',
                message: Words::say('The rule can never fire: its conditions always hold, so they never become true through a change.'),
                advice: Words::say('Let it fire every time, or give it a condition.'),
                fix: new Fix(Words::say('Every time'), '/fires', ['kind' => 'every_time']),
            );
        }
        foreach ($rule->lines as $placed) {
            $only = $placed->line instanceof \VividLedger\Rule\Line\OnlyIf ? $placed->line->condition : null;
            if ($only !== null) {
                array_push($remarks, ...$this->tree($only, $among->line($placed)->child('onlyIf'), Words::say('the line is never done')));
            }
        }
        foreach ($rule->lines as $placed) {
            $awaited = $placed->timing?->becomes();
            if ($awaited !== null) {
                $that = $among->line($placed)->child('at')->child('that');
                array_push($remarks, ...$this->tree($awaited, $that, Words::say('the line never comes')));
            }
        }
        if ($rule->until !== null) {
            array_push($remarks, ...$this->tree($rule->until, $among->file->child('until'), Words::say('it never ends anything early')));
        }

        return $remarks;
    }

    /** @return list<Remark> */
    private function tree(Condition $condition, Node $node, string $then): array
    {
        $remarks = [];
        foreach (Placement::of($condition, $node) as [$part, $at]) {
            if (! Reasoning::canHold($part)) {
                $remarks[] = new Remark(
                    level: Level::Look, at: $at, code: 'never', message: Words::say('This condition can never hold.'),
                    advice: Words::say('Change its value, or take it away.'), fix: new Fix(Words::say('Take it away'), $at, null),
                );
            } elseif (Reasoning::alwaysHolds($part)) {
                $remarks[] = new Remark(
                    level: Level::Look, at: $at, code: 'always',
                    message: Words::say('This condition always holds, so it asks for nothing.'),
                    advice: Words::say('Change its value, or take it away.'), fix: new Fix(Words::say('Take it away'), $at, null),
                );
            }
        }
        if ($remarks === [] && ! Reasoning::canHold($condition)) {
            $remarks[] = $this->contradiction($condition, $node, $then);
        }

        return $remarks;
    }

    private function contradiction(Condition $condition, Node $node, string $then): Remark
    {
        $parts = Tree::together($condition);
        $items = $node->child('of')->items();
        foreach ($parts as $later => $part) {
            for ($earlier = 0; $earlier < $later; $earlier++) {
                if (! Reasoning::canHold($parts[$earlier], $part)) {
                    $place = $earlier + 1;

                    return new Remark(
                        level: Level::Look, at: $items[$later]->at, code: 'contradiction',
                        message: Words::say('This contradicts condition {place}: both never hold at once, so {then}.', place: $place,
                            then: $then),
                        advice: Words::say('Change one of the two, or let any of them do.'),
                        fix: new Fix(Words::say('Let any of them do'), "{$node->at}/kind", 'any'),
                    );
                }
            }
        }

        return new Remark(
            Level::Look,
            $node->at,
            'never',
            Words::say('These conditions never hold together, so {then}.', then: $then),
            Words::say('Change one of them, or take it away.'),
        );
    }
}
