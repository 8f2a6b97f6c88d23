<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Schema\Field;
use VividLedger\Schema\Relation;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Slot\FieldValue;
use VividLedger\Shape\WordedAs;
use VividLedger\Words\Words;

/** The value that the one field whose change matters came from, or the one it came to. */
final readonly class ChangedValue extends WordedAs
{
    public function __construct(private string $side, private FieldValue $slot)
    {
    }

    public function read(Context $context, Node $node, Filled $around): string|int|bool|null
    {
        $field = self::field($around);

        return $field === null ? $context->problem(
            $node->at,
            'wrong_type',
            Words::say('‘{side}’ goes with exactly one field.', side: $this->side),
        )
            : FieldReader::value(self::seen($context, $around), $field, $node, self::editor($context, $around, $field));
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $field = self::field($around);
        if ($field !== null) {
            self::seen($context, $around)->more("+ {$this->side}", $node->at, self::editor($context, $around, $field));
        }
    }

    private static function editor(Context $context, Filled $around, Field $field): Editor
    {
        return Editor::value(self::seen($context, $around)->type->name, $field, mayBeEmpty: true);
    }

    private static function seen(Context $context, Filled $around): Context
    {
        return $context->about($around->any('related', Relation::class)->type ?? $context->type);
    }

    private static function field(Filled $around): ?Field
    {
        $fields = $around->all('fields', Field::class);

        return count($fields) === 1 ? $fields[0] : null;
    }

    protected function slot(): FieldValue
    {
        return $this->slot;
    }
}
