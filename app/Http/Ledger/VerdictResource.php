<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Rehearsal\FindingResource;
use OpenApi\Attributes as OA;
use VividLedger\Engine\Verdict;
use VividLedger\Words\Words;

/** What a rule made of a change. */
#[OA\Schema]
final readonly class VerdictResource
{
    public function __construct(
        #[OA\Property(enum: ['fires', 'trigger', 'forestalled', 'conditions', 'no_turn', 'guard_held'])]
        public string $reason,
        #[OA\Property]
        public string $sentence,
        #[OA\Property]
        public string $trigger,
        #[OA\Property]
        public bool $triggered,
        #[OA\Property]
        public FindingResource $conditions,
        #[OA\Property]
        public string $guard,
        #[OA\Property]
        public bool $ready,
    ) {
    }

    public static function of(Verdict $verdict): self
    {
        return new self(
            reason: $verdict->reason->value, sentence: $verdict->sentence, trigger: $verdict->trigger, triggered: $verdict->triggered,
            conditions: FindingResource::of($verdict->conditions), guard: $verdict->guard, ready: $verdict->ready,
        );
    }

    /** @param  array<array-key, mixed>  $kept  as an entry keeps it */
    public static function kept(array $kept): self
    {
        return new self(
            reason: (string) $kept['reason'], sentence: Words::say((string) $kept['sentence']), trigger: (string) $kept['trigger'],
            triggered: (bool) $kept['triggered'], conditions: FindingResource::kept($kept['conditions']), guard: (string) $kept['guard'],
            ready: (bool) $kept['ready'],
        );
    }
}
