<?php

declare(strict_types=1);

namespace VividLedger\Explain;

/** A field that an entry changed, with its values as they are kept. */
final readonly class FieldDifference
{
    public function __construct(
        public string $field,
        public string|int|bool|null $before,
        public string|int|bool|null $after,
    ) {
    }
}
