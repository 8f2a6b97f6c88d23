<?php

declare(strict_types=1);

namespace VividLedger\SignOff;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The fields that whoever decides may correct: "Discount and Fee". */
final readonly class CorrectSlot extends WordedAs
{
    /** @return list<Field> */
    public function read(Context $context, Node $node, Filled $around): array
    {
        $items = $node->items();
        $fields = [];
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue($index === count($items) - 1 ? 'and' : ',');
            }
            $field = $context->type->field($item->text() ?? '');
            if ($field === null || ! self::isMeant($field)) {
                $message = Words::say('Choose a field that people fill in.');
                $context->gap($item->text() ?? 'choose a field', $node->at, self::editor($context), 'unknown_field', $message);
            } else {
                $context->word($field->label, WordRole::Field, $node->at, self::editor($context));
                $fields[] = $field;
            }
        }

        return $fields;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ may correct', $node->at, self::editor($context));
    }

    protected function slot(): Many
    {
        return new Many(new OwnField(self::isMeant(...)), 'and', isSet: true);
    }

    private static function editor(Context $context): Editor
    {
        return Editor::chooseSeveral('May correct', static fn (): array => array_map(
            static fn (Field $field): Offer => new Offer($field->label, $field->name),
            array_values(array_filter($context->type->fields, self::isMeant(...))),
        ));
    }

    private static function isMeant(Field $field): bool
    {
        return $field->isSettable();
    }
}
