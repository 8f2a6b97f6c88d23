<?php

declare(strict_types=1);

namespace VividLedger\Text;

/** What a text was read to: a rule file, or what was not understood, or several things that it can mean. */
final readonly class TextReading
{
    /**
     * @param  ?array<mixed>  $file  a rule file, or a part of one; null when something was not understood, or can mean several things
     * @param  list<Misreading>  $misread
     * @param  list<array<mixed>>  $readings  what it can mean, where that is more than one thing
     */
    public function __construct(public ?array $file, public array $misread = [], public array $readings = [])
    {
    }
}
