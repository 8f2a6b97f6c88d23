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
        $rules = [];
        foreach ($this->db->select("SELECT id, page, either_or FROM rules WHERE status = 'in_force' ORDER BY position, id") as $row) {
            $rules[] = $this->rules->page((int) $row->id, (int) $row->page, $row->either_or);
        }

        return array_values(array_filter($rules));
    }

    /** @return list<Rule> the same with a rule in its place, which is the last for one that never was in force */
    public function with(Rule $own): array
    {
        $place = $this->db->scalar('SELECT position FROM rules WHERE id = ?', [$own->id]) ?? PHP_INT_MAX;
        $rules = [];
        $isIn = false;
        foreach ($this->db->select("SELECT id, page, either_or, position FROM rules WHERE status = 'in_force' ORDER BY position, id") as $row) {
            if (! $isIn && ((int) $row->position > (int) $place || (int) $row->id === $own->id)) {
                $rules[] = $own;
                $isIn = true;
            }
            if ((int) $row->id !== $own->id) {
                $rules[] = $this->rules->page((int) $row->id, (int) $row->page, $row->either_or);
            }
        }

        return array_values(array_filter($isIn ? $rules : [...$rules, $own]));
    }
}
