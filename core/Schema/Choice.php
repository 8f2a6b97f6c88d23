<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** One value a choice field offers. The tone is a name of the palette and only ever repeats what the label says. */
final readonly class Choice
{
    public function __construct(
        public string $value,
        public string $label,
        public ?string $tone = null,
    ) {
    }
}
