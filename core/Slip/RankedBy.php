<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Elsewhere;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The field by which those who can be asked stand in order, the lowest first. */
final readonly class RankedBy extends WordedAs
{
    public function read(Context $context, Node $node, Filled $around): ?Field
    {
        $type = AmongSlot::type($context, $around);
        $field = $type?->field($node->text() ?? '');
        $editor = self::editor($type);
        if ($field === null || ! self::ranks($field)) {
            return $context->gap('by what?', $node->at, $editor, 'unknown_field', Words::say('Choose a field that puts them in order.'));
        }
        $context->word($field->label, WordRole::Field, $node->at, $editor);

        return $field;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more('+ by', $node->at, self::editor(AmongSlot::type($context, $around)));
    }

    protected function slot(): Elsewhere
    {
        return new Elsewhere(new OwnField(self::ranks(...)), static fn (Scope $scope, array $around): ?RecordType => $scope->schema->type(
            $scope->type->field(is_string($around['field'] ?? null) ? $around['field'] : '')->target ?? '',
        ));
    }

    private static function ranks(Field $field): bool
    {
        return $field->type->isDecimal() || $field->type->isMoment();
    }

    private static function editor(?RecordType $type): Editor
    {
        return Editor::choose('In the order of', static fn (): array => [
            new Offer('as they were made', null),
            ...array_map(
                static fn (Field $field): Offer => new Offer($field->label, $field->name),
                array_values(array_filter($type->fields ?? [], self::ranks(...))),
            ),
        ]);
    }
}
