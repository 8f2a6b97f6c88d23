<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** Why a rule cannot be put in force as it stands, at the place in the rule file it concerns (a JSON Pointer). */
final readonly class Problem
{
    /** @param  ?int  $position  the character of a formula, counted from 1 */
    public function __construct(
        public string $at,
        public string $code,
        public string $message,
        public ?int $position = null,
    ) {
    }
}
