<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Value\AssignedValue;
use VividLedger\Schema\Field;

/** A field and what it is set to. */
final readonly class Assignment
{
    public function __construct(
        public Field $field,
        public AssignedValue $value,
    ) {
    }
}
