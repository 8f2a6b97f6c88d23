<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;

/** The moment of the firing: now, or today in the company's zone. */
final readonly class Stamp implements AssignedValue
{
    public static function kind(): string
    {
        return 'now';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{now}')->orSaid('{said}')->slot('now', new StampWord)
            ->slot('said', new StampWord(isLoose: true));
    }

    public static function deeds(): Shape
    {
        return Shape::of(self::kind())->orSaid(
            '(stamp|timestamp|time stamp|date stamp) {field}[ with {now}]',
            '(put|write|enter|record|note|store|save|keep) {now} (in|into|as|under|for) {field}',
            '(stamp|write) {now} (on|in|into) {field}', 'date {field}[ {now}| with {now}]',
        )->slot('field', new SettableField(self::class))->slot('now', new StampWord(isLoose: true));
    }

    public static function fits(Field $field): bool
    {
        return $field->type->isMoment();
    }

    public static function offers(Context $context, Field $field, bool $isNew): array
    {
        return [new Offer($field->type === FieldType::Date ? 'today' : 'now', ['kind' => self::kind()], 'Or')];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): self
    {
        self::shape()->opens(static fn (): Editor => $editor)->read($context, $node);

        return new self;
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): string
    {
        return $field->type === FieldType::Date
            ? $performance->now->setTimezone($performance->zone)->format('Y-m-d')
            : Value::instantText($performance->now);
    }
}
