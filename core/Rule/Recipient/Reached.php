<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Address;

/** Whom a recipient of a line came to, and by which way; nobody, and where the way ended. */
final readonly class Reached
{
    /** @param  list<Address>  $addresses */
    public function __construct(
        public array $addresses,
        public string $path,
    ) {
    }
}
