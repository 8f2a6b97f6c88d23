<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Schema\Field;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The fields whose change matters, of this record or of a related one; none for any. */
final readonly class FieldsToChange extends WordedAs
{
    public function __construct(private Slot $slot)
    {
    }

    /** "Status or Priority". */
    public static function named(): Many
    {
        return new Many(new OwnField(static fn (Field $field): bool => ! $field->system), 'or', isSet: true);
    }

    /** @return list<Field> */
    public function read(Context $context, Node $node, Filled $around): array
    {
        $type = $around->any('related', Relation::class)->type ?? $context->type;
        $context = $context->about($type);
        $chooser = Editor::chooseSeveral('Changed in', static fn (): array => array_map(
            static fn (Field $field): Offer => new Offer($field->label, $field->name),
            $type->ownFields(),
        ), ['from', 'to']);
        $fields = [];
        foreach ($node->items() as $index => $item) {
            if ($index > 0) {
                $context->glue('or');
            }
            $field = $type->field($item->text() ?? '');
            if ($field === null || $field->system) {
                $shown = $item->text() ?? '?';
                $message = Words::say('{type} has no field ‘{shown}’ that can change. Choose another.', type: $type->label, shown: $shown);
                $context->gap($shown, $node->at, $chooser, 'unknown_field', $message);
            } else {
                $context->word($field->label, WordRole::Field, $node->at, $chooser);
                $fields[] = $field;
            }
        }
        if ($node->items() === []) {
            $context->word('any field', WordRole::Value, $node->at, $chooser);
        }

        return $fields;
    }

    protected function slot(): Slot
    {
        return $this->slot;
    }
}
