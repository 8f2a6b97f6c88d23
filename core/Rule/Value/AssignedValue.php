<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Engine\Performance;
use VividLedger\Record\InvalidValue;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Node;
use VividLedger\Schema\Field;

/** What a line sets a field to. */
interface AssignedValue
{
    public static function kind(): string;

    public static function fits(Field $field): bool;

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node, Field $field): ?self;

    /**
     * @return string|int|bool|null in the shape the field keeps
     *
     * @throws InvalidValue when the record at hand has no value that the field takes
     */
    public function for(Field $field, Performance $performance): string|int|bool|null;
}
