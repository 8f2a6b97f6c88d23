<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Store\StoredRuleBook;
use Illuminate\Database\Connection;
use VividLedger\Rule\Rule;

/** All rules in force, in their order, with one of them as it is being written. */
final readonly class RulesInForce
{
    /** A rule that is not kept anywhere yet; no rule has this number. */
    public const UNKEPT = 2_000_000_000;

    public function __construct(private Connection $db, private StoredRuleBook $rules)
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
        $place = $this->db->scalar('SELECT position FROM rules WHERE id = ?', [$own->id]) ?? PHP_INT_MAX;
        $rules = [];
        $isIn = false;
        foreach ($this->rows() as $row) {
            if (! $isIn && ((int) $row->position > (int) $place || (int) $row->id === $own->id)) {
                $rules[] = $own;
                $isIn = true;
            }
            if ((int) $row->id !== $own->id) {
                $rules[] = $this->read($row);
            }
        }

        return array_values(array_filter($isIn ? $rules : [...$rules, $own]));
    }

    /** The either/or set that a rule stands in; a rule that is not kept stands in none. */
    public function eitherOr(?int $rule): string
    {
        return $rule === null ? '' : (string) $this->db->scalar('SELECT either_or FROM rules WHERE id = ?', [$rule]);
    }

    /** @return array<object> */
    private function rows(): array
    {
        return $this->db->select("SELECT id, page, either_or, position FROM rules WHERE status = 'in_force' ORDER BY position, id");
    }

    private function read(object $row): ?Rule
    {
        return $this->rules->page((int) $row->id, (int) $row->page, $row->either_or);
    }
}
