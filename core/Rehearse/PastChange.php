<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Record\CauseKind;
use VividLedger\Record\EventKind;

/** One thing that happened to a record in the past. */
final readonly class PastChange
{
    /**
     * @param  int  $entry  number of its entry
     * @param  string  $kind  of the entry
     * @param  array<string, string|int|bool|null>  $set  fields and what they became
     * @param  ?EventKind  $event  what it was, when it changed no field
     * @param  ?int  $rule  whose firing or line made it
     * @param  bool  $wrote  whether a message went out with it
     * @param  int  $cause  number of the entry it answers; 0 for what nothing caused
     * @param  int  $chain  number of the entry that the chain of causes began with
     */
    public function __construct(
        public int $entry,
        public string $kind,
        public string $at,
        public ?int $actor,
        public CauseKind $via,
        public array $set,
        public ?EventKind $event = null,
        public string $text = '',
        public string $from = '',
        public ?int $rule = null,
        public bool $wrote = false,
        public int $cause = 0,
        public int $chain = 0,
    ) {
    }

    public function moment(): \DateTimeImmutable
    {
        return new \DateTimeImmutable($this->at);
    }

    public function isBirth(): bool
    {
        return $this->kind === 'created' || $this->kind === 'restored';
    }

    /** Whether rules were asked; what leads back to a state they have answered before asks none. */
    public function isAsked(): bool
    {
        return $this->kind !== 'restored' && $this->kind !== 'reversed';
    }
}
