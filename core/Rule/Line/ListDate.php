<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Slot;
use VividLedger\Shape\WordedAs;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** The date that parts what is late on a list from what is to come; nothing where all of it stands in one list. */
final readonly class ListDate extends WordedAs
{
    public const NONE = 'in one list';

    /** @param  bool  $isFirst  whether the others follow what it says */
    public function __construct(private Slot $slot, private bool $isFirst)
    {
    }

    public function read(Context $context, Node $node, Filled $around): ?Field
    {
        $type = ListSection::seen($context, $around)->type;
        // How far ahead it looks is said with the first date, and says nothing without one.
        $line = $this->isFirst ? substr($node->at, 0, -strlen('/by')) : null;
        $ahead = $line === null || ! $node->isMissing() ? [] : ["{$line}/days" => 5, "{$line}/workingDays" => true];
        $editor = Editor::choose('By when it is due', static fn (): array => [
            ...($line === null ? [] : [new Offer(self::NONE, null, also: ["{$line}/days" => null, "{$line}/workingDays" => null])]),
            ...array_map(
                static fn (Field $field): Offer => new Offer($field->label, $field->name, 'By when it is due', also: $ahead),
                array_values(array_filter($type->fields, static fn (Field $field): bool => $field->type->isMoment())),
            ),
        ]);
        if ($this->isFirst && $node->isMissing()) {
            $context->word(self::NONE, WordRole::Value, $node->at, $editor);

            return null;
        }
        $field = $type->field($node->text() ?? '');
        if ($field === null || ! $field->type->isMoment()) {
            return $context->gap(
                $node->text() ?? 'choose a date',
                $node->at,
                $editor,
                'unknown_field',
                Words::say('Choose the date that parts what is late from what is to come.'),
            );
        }
        $context->glue('by');
        $context->word($field->label, WordRole::Field, $node->at, $editor);

        return $field;
    }

    protected function slot(): Slot
    {
        return $this->slot;
    }
}
