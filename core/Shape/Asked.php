<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** The word that somebody wants to change: its place in the file, and the editor it opens. */
final readonly class Asked
{
    /** @param  string  $at  a JSON Pointer */
    public function __construct(
        public string $at,
        public EditorSort $by,
    ) {
    }

    public function means(Word $word): bool
    {
        return $word->at === $this->at && $word->editor?->sort === $this->by;
    }
}
