<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\Engine\EitherOr;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Firing;
use VividLedger\Engine\RuleExplainer;
use VividLedger\Engine\RuleIndex;
use VividLedger\Engine\Verdict;
use VividLedger\Facts\Facts;
use VividLedger\Facts\View;
use VividLedger\Record\Change;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Schema;
use VividLedger\Time\FixedClock;

/** What each rule makes of a change, in their order: each is judged on the record as the rules before it left it. */
final readonly class Answers
{
    private RuleExplainer $examiner;

    public function __construct(private Schema $schema, private Engine $engine, \DateTimeZone $zone)
    {
        $this->examiner = new RuleExplainer($schema, $zone);
    }

    /**
     * @param  list<Rule>  $rules  in the order the administrator set
     * @param  Facts  $facts  as they were when the change was made
     * @return list<array{Rule, Verdict}> of the rules that are about the changed record or watch it
     */
    public function to(Change $change, array $rules, Facts $facts): array
    {
        $rules = array_values(array_filter($rules, static fn (Rule $rule): bool => self::concerns($change, $rule)));
        $steps = $this->engine->decide($change, new RuleIndex($rules), $facts, new FixedClock($change->at))->steps;
        $standing = [];
        $matched = [];
        $answers = [];
        foreach (EitherOr::narrowestFirst($rules) as $rule) {
            $subject = $rule->own ? $change->record() : ($rule->trigger->subjects($change, $facts)[0] ?? null);
            if ($subject === null || $subject->type !== $rule->on) {
                continue;
            }
            $key = "{$subject->type}:{$subject->id}";
            $set = $rule->eitherOr === '' ? null : "{$rule->eitherOr}:{$key}";
            $seen = $standing[$key] ?? $subject;
            $verdict = $this->examiner->examine(
                $rule,
                $this->schema->types[$subject->type],
                $change,
                new View($seen, $facts, $change),
                $set === null ? null : ($matched[$set] ?? null),
            );
            if ($set !== null && $verdict->triggered && $verdict->conditions->held) {
                $matched[$set] ??= $rule->name;
            }
            $answers[] = [$rule, $verdict];
            foreach ($steps as $step) {
                if ($step instanceof Firing && $step->rule === $rule && $step->parent === null && $step->before->id === $subject->id) {
                    $standing[$key] = $step->after;
                }
            }
        }

        return $answers;
    }

    private static function concerns(Change $change, Rule $rule): bool
    {
        $type = $change->record()->type;
        // What time or a hand sets off is for one rule alone.
        $only = $change->event?->ruleId;

        return ($rule->on === $type || $rule->watch()->type === $type) && ($only === null || $rule->id === $only);
    }
}
