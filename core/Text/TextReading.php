<?php

declare(strict_types=1);

namespace VividLedger\Text;

/** What a text was read to: a rule file, or what was not understood. */
final readonly class TextReading
{
    /**
     * @param  ?array<mixed>  $file  a rule file, or a line of one; null when something was not understood
     * @param  list<Misreading>  $misread
     */
    public function __construct(public ?array $file, public array $misread = [])
    {
    }
}
