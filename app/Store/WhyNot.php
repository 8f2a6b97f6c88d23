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
use VividLedger\Rule\Rule;

/** Answers, for a past save, what each rule then in force made of it. */
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
     * @param  ?int  $only  id of the one rule asked about; null for all of the record's type
     * @return list<array{rule: int, name: string, page: int, firedIn: ?int, verdict: Verdict}>
     *
     * @throws Refused when the entry is not the save of a record
     */
    public function answers(int $entry, ?int $only = null): array
    {
        $change = $this->history->change($entry);
        $type = $change === null ? null : $this->schemas->schema()->type($change->record()->type);
        if ($change === null || $type === null) {
            throw new Refused('not_a_save', "Entry {$entry} is not the save of a record, so no rule was asked.", 404);
        }
        $facts = new PastFacts($this->db, $this->schemas, $this->history, $entry);
        $examiner = new Examiner($this->company->zone());
        $rules = $this->inForce($type->name, $entry);
        // Decided once more, because a rule is judged on the record as the rules before it left it.
        $steps = $this->engine->decide($change, new RuleIndex($rules), $facts, new FixedClock($change->at))->steps;
        $standing = $change->record();
        $answers = [];
        foreach ($rules as $rule) {
            if ($only === null || $rule->id === $only) {
                $answers[] = [
                    'rule' => $rule->id,
                    'name' => $rule->name,
                    'page' => $rule->page,
                    'firedIn' => $this->firedIn($entry, $rule->id),
                    'verdict' => $examiner->examine($rule, $type, $change, new View($standing, $facts)),
                ];
            }
            foreach ($steps as $step) {
                if ($step instanceof Firing && $step->rule === $rule && $step->parent === null) {
                    $standing = $step->after;
                }
            }
        }

        return $answers;
    }

    /** @return list<Rule> the pages in force at an entry, in the order of the rules */
    private function inForce(string $type, int $entry): array
    {
        $rows = $this->db->select(
            'SELECT s.rule_id, s.page FROM rule_spells s JOIN rules r ON r.id = s.rule_id
            WHERE r.record_type = ? AND s.from_entry < ? AND (s.to_entry IS NULL OR s.to_entry > ?) ORDER BY r.position, r.id',
            [$type, $entry, $entry],
        );

        return array_values(array_filter(array_map(fn (object $row): ?Rule => $this->rules->page((int) $row->rule_id, (int) $row->page), $rows)));
    }

    /** @return ?int the entry of the rule's firing on this save or on what followed from it */
    private function firedIn(int $entry, int $ruleId): ?int
    {
        $causes = [$entry];
        while ($causes !== []) {
            $places = implode(', ', array_fill(0, count($causes), '?'));
            $next = $this->db->select("SELECT id, rule_id FROM entries WHERE cause_id IN ({$places}) AND kind = 'fired'", $causes);
            foreach ($next as $fired) {
                if ((int) $fired->rule_id === $ruleId) {
                    return (int) $fired->id;
                }
            }
            $causes = array_map(static fn (object $row): int => (int) $row->id, $next);
        }

        return null;
    }
}
