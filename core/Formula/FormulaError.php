<?php

declare(strict_types=1);

namespace VividLedger\Formula;

/** A formula that cannot be read, with the character it cannot be read at. */
final class FormulaError extends \DomainException
{
    /** @param  int  $position of the character, counted from 1 */
    public function __construct(string $message, public readonly int $position)
    {
        parent::__construct($message);
    }
}
