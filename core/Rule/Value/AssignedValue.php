<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Record\RefusedValue;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
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

    /**
     * @param  bool  $isNew  whether the record is being made, and has no value yet
     * @return list<Offer> what it is offered as, besides a value
     */
    public static function offers(Context $context, Field $field, bool $isNew): array;

    /**
     * Reads it from a rule file and words it; null when unfinished.
     *
     * @param  Editor  $editor  with which something else is chosen
     */
    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self;

    /**
     * @param  ?Record  $target  the record whose field is set, as it stands; null for one that is being made
     * @return string|int|bool|null in the shape the field keeps
     *
     * @throws InvalidValue when the record at hand has no value that the field takes
     * @throws RefusedValue when the save is to be refused
     */
    public function for(Field $field, ActionContext $performance, ?Record $target): string|int|bool|null;
}
