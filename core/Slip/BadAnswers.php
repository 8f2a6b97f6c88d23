<?php

declare(strict_types=1);

namespace VividLedger\Slip;

/** Answers that cannot be taken. Nothing has changed. */
final class BadAnswers extends \DomainException
{
    /** @param  array<int, array{string, string}>  $problems  a stable code and words for the person, by the place of the question */
    public function __construct(public readonly array $problems)
    {
        parent::__construct(implode(' ', array_column($problems, 1)));
    }
}
