<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The record an earlier line made, for a reference to it. */
final readonly class MadeOne implements AssignedValue
{
    private function __construct(private string $name)
    {
    }

    public static function kind(): string
    {
        return 'made';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the new record {as}')->slot('as', new Quoted);
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
        return array_map(
            static fn (string $name, $type): Offer => new Offer(
                "the new {$type->inSentence()}",
                ['kind' => self::kind(), 'as' => $name],
                'Or',
            ),
            array_keys(self::fitting($context, $field)),
            self::fitting($context, $field),
        );
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $name = $node->child('as')->text() ?? '';
        $fitting = self::fitting($context, $field);
        $offers = static fn (): array => array_map(
            static fn (string $name, $type): Offer => new Offer("the new {$type->inSentence()}", $name),
            array_keys($fitting),
            $fitting,
        );
        if (! isset($fitting[$name])) {
            return $context->gap(
                'the new record',
                $node->child('as')->at,
                Editor::choose('Which record', $offers),
                'unknown_record',
                Words::say('No line above makes a record that {field} takes.', field: $field->label),
            );
        }
        $context->word("the new {$fitting[$name]->inSentence()}", WordRole::Field, $node->at, $editor);

        return new self($name);
    }

    public function for(Field $field, ActionContext $performance, ?Record $target): int
    {
        return $performance->made[$this->name]->id ?? throw new InvalidValue(
            'no_value',
            Words::say('{field}: the record was not made.', field: $field->label),
        );
    }

    /** @return array<string, RecordType> records that lines above make and that the field takes, by the name they go by */
    private static function fitting(Context $context, Field $field): array
    {
        return array_filter($context->sheet->made, static fn (RecordType $type): bool => $type->name === $field->target);
    }
}
