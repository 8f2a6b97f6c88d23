<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Models\Rules\GuardKey;
use VividLedger\Facts\GuardFacts;
use VividLedger\Facts\GuardState;

/** Repeat guards from the database, none asked for twice. */
final class StoredGuards implements GuardFacts
{
    /** @var array<string, GuardState> by rule and record */
    private array $states = [];

    /** @var array<string, array<string, true>> keys fetched at once, by rule and record */
    private array $keys = [];

    /** @param  list<int>  $ids  of records whose guards will be asked for, fetched at once */
    public function remember(int $rule, string $type, array $ids): void
    {
        [$states, $keys] = GuardStore::states($rule, $type, $ids);
        foreach ($ids as $id) {
            $this->states["{$rule}:{$type}:{$id}"] = $states[$id] ?? new GuardState;
            $this->keys["{$rule}:{$type}:{$id}"] = $keys[$id] ?? [];
        }
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        if (isset($this->keys["{$ruleId}:{$type}:{$recordId}"])) {
            return isset($this->keys["{$ruleId}:{$type}:{$recordId}"]["{$epoch}:{$key}"]);
        }

        return GuardKey::query()->about($type, $recordId)->where('rule_id', $ruleId)->where('epoch', $epoch)->where('guard_key', $key)
            ->exists();
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return $this->states["{$ruleId}:{$type}:{$recordId}"] ??= GuardStore::state($ruleId, $type, $recordId);
    }
}
