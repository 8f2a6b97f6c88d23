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
use VividLedger\Shape\Slot\ItsType;
use VividLedger\Words\Words;

/** The record the rule fires on, for a reference to it. */
final readonly class ThisOne implements AssignedValue
{
    public static function kind(): string
    {
        return 'this';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('this {}')->orSaid('the {} itself')->slot('', new ItsType);
    }

    public static function deeds(): null
    {
        return null;
    }

    public static function fits(Field $field): bool
    {
        return $field->type === FieldType::Reference;
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return $field->target !== $context->type->name ? []
            : [new Offer("this {$context->type->inSentence()}", ['kind' => self::kind()], 'Or')];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        self::shape()->opens(static fn (): Editor => $editor)->read($context, $node);

        return $field->target === $context->type->name ? new self : $context->problem(
            $node->at,
            'wrong_type',
            Words::say('{field} takes no {record}.', field: $field->label, record: Words::within($context->type->label)),
        );
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): int
    {
        return $performance->record->id;
    }
}
