<?php

declare(strict_types=1);

namespace VividLedger\People;

/** Whom a person expression found, and by which way; or nobody, and where the way ended. */
final readonly class Found
{
    /** @param  ?string  $turnOf  the team whose turn the person takes */
    public function __construct(
        public ?Person $person,
        public string $path,
        public ?string $turnOf = null,
    ) {
    }
}
