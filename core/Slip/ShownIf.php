<?php

declare(strict_types=1);

namespace VividLedger\Slip;

/** A question is asked only where one before it was answered in a certain way. */
final readonly class ShownIf
{
    /**
     * @param  string  $question  as it is asked
     * @param  string  $is  the answer, as it reads
     */
    public function __construct(public string $question, public string $is)
    {
    }
}
