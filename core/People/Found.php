<?php

declare(strict_types=1);

namespace VividLedger\People;

use VividLedger\House\Person;

/** Whom a person expression found, and by which way; or nobody, and where the way ended. */
final readonly class Found
{
    /**
     * @param  ?string  $turnOf  the team whose turn the person takes
     * @param  bool  $stoodIn  whether the person is the company's fallback, because nobody else was found
     */
    public function __construct(
        public ?Person $person,
        public string $path,
        public ?string $turnOf = null,
        public bool $stoodIn = false,
    ) {
    }
}
