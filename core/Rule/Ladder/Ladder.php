<?php

declare(strict_types=1);

namespace VividLedger\Rule\Ladder;

/** An escalation chain made of rungs. */
final readonly class Ladder
{
    public const MOST = 10;

    /**
     * @param  string  $name  empty for one that is written in the rule
     * @param  non-empty-list<Rung>  $rungs
     */
    public function __construct(public string $name, public array $rungs)
    {
    }

    /** @param  int  $number  from 1 */
    public function rung(int $number): Rung
    {
        return $this->rungs[min($number, count($this->rungs)) - 1];
    }
}
