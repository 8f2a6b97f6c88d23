<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Condition\Finding;

/** A rule's answer to one change, with everything it saw. */
final readonly class Verdict implements \JsonSerializable
{
    /**
     * @param  string  $trigger  what the change was, seen by the rule's trigger
     * @param  string  $guard  the repeat guard and its state
     * @param  string  $sentence  the verdict in one sentence
     */
    public function __construct(
        public Reason $reason,
        public string $sentence,
        public string $trigger,
        public bool $triggered,
        public Finding $conditions,
        public string $guard,
        public bool $ready,
    ) {
    }

    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        return [
            'reason' => $this->reason->value, 'sentence' => $this->sentence, 'trigger' => $this->trigger, 'triggered' => $this->triggered,
            'conditions' => $this->conditions, 'guard' => $this->guard, 'ready' => $this->ready,
        ];
    }
}
