<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Rule\Rule;

/** A rule's line refused the change: nothing of it is to be written. */
final readonly class Refusal
{
    /** @param  ?string  $field  name of the field of the changed record the message belongs to */
    public function __construct(
        public Rule $rule,
        public ?string $field,
        public string $message,
        public Verdict $why,
    ) {
    }
}
