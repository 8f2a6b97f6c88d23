<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Engine\Engine;
use VividLedger\Explain\Answers;
use VividLedger\Explain\Verdict;
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
        $answers = [];
        foreach ((new Answers($this->schemas->schema(), $this->engine, $this->company->zone()))->to($change, $this->inForceAt($entry), $facts) as [$rule, $verdict]) {
            if ($only === null || $rule->id === $only) {
                $answers[] = ['rule' => $rule->id, 'name' => $rule->name, 'page' => $rule->page, 'firedIn' => $this->firedIn($entry, $rule->id), 'verdict' => $verdict];
            }
        }

        return $answers;
    }

    /** @return list<Rule> the pages in force at an entry, in the order of the rules */
    private function inForceAt(int $entry): array
    {
        $rows = $this->db->select(
            'SELECT s.rule_id, s.page, r.either_or FROM rule_spells s JOIN rules r ON r.id = s.rule_id
            WHERE s.from_entry < ? AND (s.to_entry IS NULL OR s.to_entry > ?) ORDER BY r.position, r.id',
            [$entry, $entry],
        );

        return array_values(array_filter(array_map(fn (object $row): ?Rule => $this->rules->page((int) $row->rule_id, (int) $row->page, $row->either_or), $rows)));
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
