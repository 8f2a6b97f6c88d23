<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** A value that its field does not take. The message is for the person who gave it. */
final class InvalidValue extends \DomainException
{
    /** @param  string  $reason a stable code: wrong_type, too_long, not_offered, out_of_range, required */
    public function __construct(public readonly string $reason, string $message)
    {
        parent::__construct($message);
    }
}
