<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\RefusedValue;
use VividLedger\Rule\Performance\Performance;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;

/** What a line sets a field to. */
interface AssignedValue
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** What people say instead of “set … to …”, {"field"} with what it is set to: “clear the date”; null when there is nothing. */
    public static function deeds(): ?Shape;

    public static function fits(Field $field): bool;

    /** As offered besides a value: "what it is plus"; null for what is offered in another way. */
    public static function label(Field $field): ?string;

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node, Field $field): ?self;

    /**
     * @param  ?Record  $target  the record whose field is set, as it stands; null for one that is being made
     * @return string|int|bool|null in the shape the field keeps
     *
     * @throws InvalidValue when the record at hand has no value that the field takes
     * @throws RefusedValue when the save is to be refused
     */
    public function for(Field $field, Performance $performance, ?Record $target): string|int|bool|null;
}
