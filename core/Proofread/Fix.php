<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

/** A change of the rule file that follows a remark's advice. */
final readonly class Fix
{
    /** @param  mixed  $value  what is put at the place; null takes away what stands there */
    public function __construct(
        public string $label,
        public string $at,
        public mixed $value,
    ) {
    }
}
