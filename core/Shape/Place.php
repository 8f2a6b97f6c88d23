<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** Where a slot stands in a sentence. */
final readonly class Place
{
    /** @param  string  $key  of the object; empty for what the file need not keep */
    public function __construct(public string $key)
    {
    }
}
