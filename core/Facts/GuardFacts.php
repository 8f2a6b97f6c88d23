<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** What may be asked about repeat guards. */
interface GuardFacts
{
    /** Whether a rule has used a guard key for a record since its guard was made ready again for the so-manieth time. */
    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool;

    public function guardState(int $ruleId, string $type, int $recordId): GuardState;
}
