<?php

declare(strict_types=1);

namespace VividLedger\Slip;

/** Answers that cannot be taken. Nothing has changed. */
final class BadAnswers extends \DomainException
{
    /** @param  array<int, string>  $problems  for the person who answered, by the place of the question */
    public function __construct(public readonly array $problems)
    {
        parent::__construct(implode(' ', $problems));
    }
}
