<?php

declare(strict_types=1);

namespace VividLedger\Listing;

use VividLedger\Schema\Field;
use VividLedger\Schema\Path;

/** By what rows of a list are sorted: by a column, forwards or backwards. */
final readonly class Sort
{
    public function __construct(public Column $by, public bool $descending)
    {
    }

    public static function byField(Field $field, bool $descending = false): self
    {
        return new self(new Column($field->name, new Path([], $field), $field->label), $descending);
    }
}
