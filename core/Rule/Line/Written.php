<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

/** A field that a line writes. */
final readonly class Written
{
    /**
     * @param  string  $type  name of the record type
     * @param  bool  $isFixed  whether the value is known from the rule alone
     * @param  bool  $isOwn  whether it is the field of the very record the rule fires on
     */
    public function __construct(
        public string $type,
        public string $field,
        public bool $isFixed,
        public string|int|bool|null $value,
        public bool $isOwn,
    ) {
    }
}
