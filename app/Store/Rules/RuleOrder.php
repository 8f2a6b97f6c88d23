<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Models\Ledger\Entry;
use App\Models\Rules\StoredRule;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Sql\Batch;
use Illuminate\Database\Connection;
use VividLedger\Words\Words;

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
     * @throws DomainError when another rule came or went meanwhile
     */
    public function arrange(string $type, array $ids, int $by): void
    {
        $this->db->transaction(function () use ($type, $ids, $by): void {
            $rules = StoredRule::query()->where('record_type', $type)->orderBy('position')->orderBy('id')->lockForUpdate()->get()
                ->keyBy('id');
            $known = $rules->keys()->all();
            if (count($ids) !== count($known) || array_diff($known, $ids) !== []) {
                throw new DomainError(
                    'stale_order',
                    Words::say('The rules changed while you ordered them. Look at the list again.'),
                    RefusedFor::Conflict,
                );
            }
            if ($ids === $known) {
                return;
            }
            // The places stay the same; only who stands in them changes, so rules of other types keep theirs.
            $places = $rules->pluck('position')->all();
            foreach ($ids as $index => $id) {
                ($rules[$id] ?? throw new \LogicException('It was compared before.'))->update(['position' => $places[$index]]);
            }
            $this->entry(
                'rules_ordered',
                null,
                ['type' => $type, 'order' => array_map(static fn (int $id): string => $rules[$id]->name ?? '', $ids)],
                $by,
            );
        });
    }

    /** @param  string  $set  name of the either/or set; empty takes the rule out of it */
    public function stand(int $id, string $set, int $by): void
    {
        $set = trim($set);
        if (mb_strlen($set) > 80) {
            $message = Words::say('A name has at most 80 characters.');
            throw new DomainError(
                'invalid_values',
                $message,
                RefusedFor::Invalid,
                [['at' => '/set', 'code' => 'too_long', 'message' => $message]],
            );
        }
        $this->db->transaction(function () use ($id, $set, $by): void {
            $rule = StoredRule::query()->lockForUpdate()->find($id)
                ?? throw DomainError::missing(Words::say('There is no rule {id}.', id: $id));
            if ($rule->either_or !== $set) {
                $this->entry('rule_in_set', $id, ['set' => $set, 'before' => $rule->either_or], $by);
                $rule->update(['either_or' => $set]);
            }
        });
    }

    /** @param  array<string, mixed>  $data */
    private function entry(string $kind, ?int $rule, array $data, int $by): void
    {
        Batch::insert(Entry::class, [Entry::row($kind, $this->clock->now(), $data, ['actor_id' => $by, 'rule_id' => $rule])]);
    }
}
