<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Models\Ledger\Entry;
use App\Models\Rules\RuleSpell;
use App\Store\DomainError;
use App\Store\Records\PointInTimeFacts;
use App\Store\Records\RecordHistory;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Verdict;
use VividLedger\Explain\Answers;
use VividLedger\Rule\Rule;
use VividLedger\Words\Words;

/** Answers, for a past change, what each rule then in force made of it. */
final readonly class WhyNot
{
    public function __construct(
        private SchemaStore $schemas,
        private RecordHistory $history,
        private StoredRuleBook $rules,
        private Company $company,
        private PointInTimeFacts $asOf,
        private Engine $engine,
    ) {
    }

    /**
     * @param  ?int  $only  id of the one rule asked about; null for all that concern the change
     * @return list<array{rule: int, name: string, page: int, firedIn: ?int, verdict: Verdict}>
     *
     * @throws DomainError when the entry is neither a save nor an event
     */
    public function answers(int $entry, ?int $only = null): array
    {
        $change = $this->history->change($entry)
            ?? throw new DomainError(
                'not_a_save',
                Words::say('Entry {entry} is not the save of a record, so no rule was asked.', entry: $entry),
                RefusedFor::Missing,
            );
        $facts = $this->asOf->after($entry, $change->at);
        $answers = [];
        $firings = $this->firings($entry);
        $asked = new Answers($this->schemas->schema(), $this->engine, $this->company->zone());
        foreach ($asked->to($change, $this->inForceAt($entry), $facts) as [$rule, $verdict]) {
            if ($only === null || $rule->id === $only) {
                $answers[] = [
                    'rule' => $rule->id, 'name' => $rule->name, 'page' => $rule->page, 'firedIn' => $firings[$rule->id] ?? null,
                    'verdict' => $verdict,
                ];
            }
        }

        return $answers;
    }

    /** @return list<Rule> the pages in force at an entry, in the order of the rules */
    private function inForceAt(int $entry): array
    {
        $spells = RuleSpell::query()->at($entry)->with('rule')->get()
            ->sortBy(static fn (RuleSpell $spell): array => [$spell->rule->position, $spell->rule_id]);

        $this->rules->remember(array_values($spells->map(
            static fn (RuleSpell $spell): array => [$spell->rule_id, $spell->page, $spell->rule->either_or],
        )->all()));

        return array_values(array_filter($spells->map(
            fn (RuleSpell $spell): ?Rule => $this->rules->page($spell->rule_id, $spell->page, $spell->rule->either_or),
        )->all()));
    }

    /** @return array<int, int> the entry of each rule's first firing on this change or on what followed from it, by rule */
    private function firings(int $entry): array
    {
        $firings = [];
        $causes = [$entry];
        while ($causes !== []) {
            $next = Entry::query()->whereIn('cause_id', $causes)->whereIn('kind', ['fired', 'changed', 'created', 'comment'])
                ->get(['id', 'kind', 'rule_id']);
            foreach ($next as $followed) {
                if ($followed->kind === 'fired' && $followed->rule_id !== null) {
                    $firings[$followed->rule_id] ??= $followed->id;
                }
            }
            $causes = $next->pluck('id')->all();
        }

        return $firings;
    }
}
