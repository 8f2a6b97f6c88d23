<?php

declare(strict_types=1);

namespace VividLedger\Rule\Call;

use VividLedger\Schema\Field;

/** One member of an answer, and the field that it is kept in. */
final readonly class KeptAnswer
{
    /** @param  string  $from  its name in the answer, with dots between the levels */
    public function __construct(public string $from, public Field $field)
    {
    }
}
