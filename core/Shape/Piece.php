<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A part of a sentence that can be left out, or said in several ways. */
final readonly class Piece
{
    /** @param  list<Sentence>  $ways  the first is what is printed */
    public function __construct(
        public array $ways,
        public bool $isOptional,
    ) {
    }

    public function way(): Sentence
    {
        return $this->ways[0];
    }
}
