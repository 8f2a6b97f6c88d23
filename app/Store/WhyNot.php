<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Firing;
use VividLedger\Engine\FixedClock;
use VividLedger\Engine\RuleIndex;
use VividLedger\Engine\View;
use VividLedger\Explain\Examiner;
use VividLedger\Explain\Verdict;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;

/** Answers, for a past change, what each rule then in force made of it. */
final readonly class WhyNot
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private History $history,
        private StoredRuleBook $rules,
        private Company $company,
        private Engine $engine,
    ) {
    }

    /**
     * @param  ?int  $only  id of the one rule asked about; null for all that concern the change
     * @return list<array{rule: int, name: string, page: int, firedIn: ?int, verdict: Verdict}>
     *
     * @throws Refused when the entry is neither a save nor an event
     */
    public function answers(int $entry, ?int $only = null): array
    {
        $change = $this->history->change($entry) ?? throw new Refused('not_a_save', "Entry {$entry} is not the save of a record, so no rule was asked.", 404);
        $facts = new PastFacts($this->db, $this->schemas, $this->history, $entry, $change->at);
        $examiner = new Examiner($this->schemas->schema(), $this->company->zone());
        $rules = $this->concerned($change, $entry);
        // Decided once more, because a rule is judged on the record as the rules before it left it.
        $steps = $this->engine->decide($change, new RuleIndex($rules), $facts, new FixedClock($change->at))->steps;
        $standing = ['' => $change->record()];
        $matched = [];
        $answers = [];
        foreach ($rules as $rule) {
            $subject = $rule->own ? $change->record() : ($rule->trigger->subjects($change, $facts)[0] ?? null);
            if ($subject === null) {
                continue;
            }
            $key = $rule->own ? '' : "{$subject->type}:{$subject->id}";
            $seen = $standing[$key] ?? $subject;
            $set = $rule->eitherOr === '' ? null : "{$rule->eitherOr}:{$key}";
            $verdict = $examiner->examine($rule, $this->schemas->schema()->types[$subject->type], $change, new View($seen, $facts, $change), $set === null ? null : ($matched[$set] ?? null));
            if ($set !== null && $verdict->triggered && $verdict->conditions->held) {
                $matched[$set] ??= $rule->name;
            }
            if ($only === null || $rule->id === $only) {
                $answers[] = ['rule' => $rule->id, 'name' => $rule->name, 'page' => $rule->page, 'firedIn' => $this->firedIn($entry, $rule->id), 'verdict' => $verdict];
            }
            foreach ($steps as $step) {
                if ($step instanceof Firing && $step->rule === $rule && $step->parent === null && $step->before->id === $subject->id) {
                    $standing[$key] = $step->after;
                }
            }
        }

        return $answers;
    }

    /** @return list<Rule> the pages in force at an entry that are about the changed record or watch it, in the order of the rules */
    private function concerned(Change $change, int $entry): array
    {
        $rows = $this->db->select(
            'SELECT s.rule_id, s.page, r.either_or FROM rule_spells s JOIN rules r ON r.id = s.rule_id
            WHERE s.from_entry < ? AND (s.to_entry IS NULL OR s.to_entry > ?) ORDER BY r.position, r.id',
            [$entry, $entry],
        );
        $type = $change->record()->type;
        $byHand = $change->event?->ruleId;
        $rules = array_map(fn (object $row): ?Rule => $this->rules->page((int) $row->rule_id, (int) $row->page, $row->either_or), $rows);

        return array_values(array_filter($rules, static fn (?Rule $rule): bool => $rule !== null && ($rule->on === $type || $rule->watch()->type === $type) && ($byHand === null || $rule->id === $byHand)));
    }

    /** @return ?int the entry of the rule's firing on this change or on what followed from it */
    private function firedIn(int $entry, int $ruleId): ?int
    {
        $causes = [$entry];
        while ($causes !== []) {
            $places = implode(', ', array_fill(0, count($causes), '?'));
            $next = $this->db->select("SELECT id, kind, rule_id FROM entries WHERE cause_id IN ({$places}) AND kind IN ('fired', 'changed', 'created', 'comment')", $causes);
            foreach ($next as $fired) {
                if ($fired->kind === 'fired' && (int) $fired->rule_id === $ruleId) {
                    return (int) $fired->id;
                }
            }
            $causes = array_map(static fn (object $row): int => (int) $row->id, $next);
        }

        return null;
    }
}
