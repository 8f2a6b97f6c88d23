<?php

declare(strict_types=1);

namespace App\Evidence\Rules;

use App\Models\Rules\StoredRule;
use App\Store\Rules\StoredRuleBook;
use VividLedger\Rule\Rule;

/** All rules in force, in their order, with one of them as it is being written. */
final readonly class RulesInForce
{
    /** A rule that is not kept anywhere yet; no rule has this number. */
    public const UNKEPT = 2_000_000_000;

    public function __construct(private StoredRuleBook $rules)
    {
    }

    /** @return list<Rule> */
    public function all(): array
    {
        return array_values(array_filter(array_map($this->read(...), $this->rows())));
    }

    /** @return list<Rule> the same with a rule in its place, which is the last for one that never was in force */
    public function with(Rule $own): array
    {
        $place = StoredRule::query()->whereKey($own->id)->value('position') ?? PHP_INT_MAX;
        $rules = [];
        $isIn = false;
        foreach ($this->rows() as $row) {
            if (! $isIn && ($row->position > $place || $row->id === $own->id)) {
                $rules[] = $own;
                $isIn = true;
            }
            if ($row->id !== $own->id) {
                $rules[] = $this->read($row);
            }
        }

        return array_values(array_filter($isIn ? $rules : [...$rules, $own]));
    }

    /** The either/or set that a rule stands in; a rule that is not kept stands in none. */
    public function eitherOr(?int $rule): string
    {
        return $rule === null ? '' : (string) StoredRule::query()->whereKey($rule)->value('either_or');
    }

    /** @return list<StoredRule> */
    private function rows(): array
    {
        $rows = array_values(StoredRule::query()->inForce()->orderBy('position')->orderBy('id')->get()->all());
        $this->rules->remember(array_map(StoredRule::pageKey(...), $rows));

        return $rows;
    }

    private function read(StoredRule $row): ?Rule
    {
        return $this->rules->page(...StoredRule::pageKey($row));
    }
}
