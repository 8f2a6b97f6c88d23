<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** One way to fill in a form: what is then put, and the fields that say the rest. */
final readonly class Way
{
    /**
     * @param  string  $label  as it is chosen among others; empty where it is the only one
     * @param  ?array<string, mixed>  $with  what stands there besides what the fields say; null where the place is left out
     * @param  list<FormField>  $fields
     * @param  bool  $keeps  whether what else stands there stays
     */
    public function __construct(
        public string $label,
        public ?array $with = [],
        public array $fields = [],
        public bool $keeps = false,
    ) {
    }
}
