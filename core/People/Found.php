<?php

declare(strict_types=1);

namespace VividLedger\People;

/** Whom a person expression found, and by which way; or nobody, and where the way ended. */
final readonly class Found
{
    public function __construct(
        public ?Person $person,
        public string $path,
    ) {
    }
}
