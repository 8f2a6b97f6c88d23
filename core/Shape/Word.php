<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/**
 * A piece of a sentence, seen from a record type ("on"). A word that can be changed names the place in the rule file it stands for (a JSON
 * Pointer).
 */
final readonly class Word
{
    public function __construct(
        public string $text,
        public WordRole $role = WordRole::Glue,
        public ?string $at = null,
        public ?Editor $editor = null,
        public string $on = '',
    ) {
    }
}
