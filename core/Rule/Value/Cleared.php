<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;

/** Nothing: the field is emptied. */
final readonly class Cleared implements AssignedValue, Known
{
    public static function kind(): string
    {
        return 'clear';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('empty')->orSaid('(nothing|blank|no value|none|null|be empty)');
    }

    public static function deeds(): Shape
    {
        return Shape::of(self::kind())->orSaid(
            '(clear|delete|remove|empty|erase) (the value of|what is in|whatever is in|the content of|the contents of) {field}',
            '(clear|empty|remove|delete|unset|wipe|reset|blank|blank out|clear out|erase) {field}[ field| value]',
            '(take|leave) {field} (out|away|empty|blank)',
        )->slot('field', new SettableField(self::class));
    }

    public static function fits(Field $field): bool
    {
        return ! $field->required && $field->type !== FieldType::Tick;
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return $isNew ? [] : [new Offer('empty', ['kind' => self::kind()], 'Or')];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): self
    {
        self::shape()->opens(static fn (): Editor => $editor)->read($context, $node);

        return new self;
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): null
    {
        return null;
    }

    public function known(): null
    {
        return null;
    }
}
