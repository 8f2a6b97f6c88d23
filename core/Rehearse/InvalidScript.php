<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

/** A rehearsal that cannot be played as it is written. */
final class InvalidScript extends \RuntimeException
{
    /** @param  string  $at  JSON Pointer into the script */
    public function __construct(public readonly string $at, string $message)
    {
        parent::__construct($message);
    }
}
