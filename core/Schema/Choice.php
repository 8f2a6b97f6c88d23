<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/**
 * One value a choice field offers. The tone is a name of the palette and only ever repeats what the label says; a record with a
 * value that closes it is done with, and nobody waits for more to come. A retired one is kept where it is, and offered no more.
 */
final readonly class Choice
{
    public function __construct(
        public string $value,
        public string $label,
        public ?string $tone = null,
        public bool $closes = false,
        public bool $isRetired = false,
    ) {
    }
}
