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

/** Conditions that can never hold, always hold, or contradict each other. */
final class ConditionsHold implements Check
{
    public function remarks(RuleAmongOthers $among): array
    {
        $rule = $among->rule;
        $remarks = $this->tree($rule->condition, $among->file->child('onlyIf'), 'the rule can never fire');
        if ($remarks === [] && ! Reasoning::canHold(Starts::condition($rule))) {
            $remarks[] = new Remark(
                Level::Look,
                '/when',
                'never',
                'The rule can never fire: the value its trigger waits for does not meet its conditions.',
                'Change the value, or the conditions.',
            );
        }
        // On a record that was there before they held already, and a new one it does not see.
        if ($rule->guard->wantsTurn() && $rule->own && ! $rule->trigger->watch()->created && $rule->trigger->watch()->events === []
            && Reasoning::alwaysHolds($rule->condition)) {
            $remarks[] = new Remark(
                Level::Look,
                '/fires',
                'never',
                'The rule can never fire: its conditions always hold, so they never become true through a change.',
                'Let it fire every time, or give it a condition.',
                new Fix('Every time', '/fires', ['kind' => 'every_time']),
            );
        }
        foreach ($rule->lines as $placed) {
            $only = $placed->line instanceof \VividLedger\Rule\Line\OnlyIf ? $placed->line->condition : null;
            if ($only !== null) {
                array_push($remarks, ...$this->tree($only, $among->line($placed)->child('onlyIf'), 'the line is never done'));
            }
        }
        if ($rule->until !== null) {
            array_push($remarks, ...$this->tree($rule->until, $among->file->child('until'), 'it never ends anything early'));
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
                    Level::Look,
                    $at,
                    'never',
                    'This condition can never hold.',
                    'Change its value, or take it away.',
                    new Fix('Take it away', $at, null),
                );
            } elseif (Reasoning::alwaysHolds($part)) {
                $remarks[] = new Remark(
                    Level::Look,
                    $at,
                    'always',
                    'This condition always holds, so it asks for nothing.',
                    'Change its value, or take it away.',
                    new Fix('Take it away', $at, null),
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
                        Level::Look,
                        $items[$later]->at,
                        'contradiction',
                        "This contradicts condition {$place}: both never hold at once, so {$then}.",
                        'Change one of the two, or let any of them do.',
                        new Fix('Let any of them do', "{$node->at}/kind", 'any'),
                    );
                }
            }
        }

        return new Remark(
            Level::Look,
            $node->at,
            'never',
            "These conditions never hold together, so {$then}.",
            'Change one of them, or take it away.',
        );
    }
}
