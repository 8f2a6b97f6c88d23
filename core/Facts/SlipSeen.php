<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** The latest slip about a record as texts look at it. */
final readonly class SlipSeen
{
    /**
     * @param  string  $to  whose turn it is, or was last
     * @param  list<array{asked: string, said: string, path?: string}>  $answers  in words
     */
    public function __construct(public string $status, public string $to, public array $answers)
    {
    }
}
