<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

/** A question that somebody who was asked has put back, or the answer to it. */
final readonly class Talk
{
    public function __construct(public int $by, public \DateTimeImmutable $at, public string $text)
    {
    }
}
