<?php

declare(strict_types=1);

namespace App\Store\Rules;

use VividLedger\Facts\GuardFacts;
use VividLedger\Facts\GuardState;

/** Repeat guards for whoever asks about many rules on one record: those of a record are fetched at once. */
final class GuardsOfRecord implements GuardFacts
{
    /** @var array<string, array{array<int, GuardState>, array<int, array<string, true>>}> by record */
    private array $known = [];

    /** @param  ?int  $before  only what was there before an entry */
    public function __construct(private readonly ?int $before = null)
    {
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        return isset($this->of($type, $recordId)[1][$ruleId]["{$epoch}:{$key}"]);
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return $this->of($type, $recordId)[0][$ruleId] ?? new GuardState;
    }

    /** @return array{array<int, GuardState>, array<int, array<string, true>>} by rule */
    private function of(string $type, int $id): array
    {
        return $this->known["{$type}:{$id}"] ??= GuardStore::ofRecord($type, $id, $this->before);
    }
}
