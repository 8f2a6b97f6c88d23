<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;

/** The order in which rules answer, and the either/or sets in which only the first that matches fires. Each change of it is an entry. */
final readonly class RuleOrder
{
    public function __construct(
        private Connection $db,
        private HouseClock $clock,
    ) {
    }

    /**
     * @param  list<int>  $ids  all rules of the record type, in the order wanted
     *
     * @throws Refused when another rule came or went meanwhile
     */
    public function arrange(string $type, array $ids, int $by): void
    {
        $this->db->transaction(function () use ($type, $ids, $by): void {
            $rules = $this->db->select('SELECT id, position, name FROM rules WHERE record_type = ? ORDER BY position, id FOR UPDATE', [$type]);
            $known = array_map(static fn (object $rule): int => (int) $rule->id, $rules);
            if (count($ids) !== count($known) || array_diff($known, $ids) !== []) {
                throw new Refused('stale_order', 'The rules changed while you ordered them. Look at the list again.', 409);
            }
            if ($ids === $known) {
                return;
            }
            // The places stay the same; only who stands in them changes, so rules of other types keep theirs.
            $places = array_map(static fn (object $rule): int => (int) $rule->position, $rules);
            $names = [];
            foreach ($rules as $rule) {
                $names[(int) $rule->id] = $rule->name;
            }
            foreach ($ids as $index => $id) {
                $this->db->update('UPDATE rules SET position = ? WHERE id = ?', [$places[$index], $id]);
            }
            $this->entry('rules_ordered', null, ['type' => $type, 'order' => array_map(static fn (int $id): string => $names[$id], $ids)], $by);
        });
    }

    /** @param  string  $set  name of the either/or set; empty takes the rule out of it */
    public function stand(int $id, string $set, int $by): void
    {
        $set = trim($set);
        if (mb_strlen($set) > 80) {
            throw new Refused('invalid_values', 'A name has at most 80 characters.', 422, [['at' => '/set', 'code' => 'too_long', 'message' => 'A name has at most 80 characters.']]);
        }
        $this->db->transaction(function () use ($id, $set, $by): void {
            $rule = $this->db->selectOne('SELECT either_or FROM rules WHERE id = ? FOR UPDATE', [$id]) ?? throw new Refused('not_found', "There is no rule {$id}.", 404);
            if ($rule->either_or !== $set) {
                $this->db->update('UPDATE rules SET either_or = ? WHERE id = ?', [$set, $id]);
                $this->entry('rule_in_set', $id, ['set' => $set, 'before' => $rule->either_or], $by);
            }
        });
    }

    /** @param  array<string, mixed>  $data */
    private function entry(string $kind, ?int $rule, array $data, int $by): void
    {
        Batch::insert($this->db, 'entries', [[
            'kind' => $kind, 'at' => Columns::moment($this->clock->now()), 'actor_id' => $by, 'rule_id' => $rule, 'data' => json_encode($data, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        ]]);
    }
}
