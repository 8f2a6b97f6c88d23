<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Value\AssignedValues;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** Fields of one record type with what they are set to, in the order written: "Review to Needed and Stage since to now". */
final readonly class Assignments
{
    /** @param  list<Assignment>  $all */
    private function __construct(public array $all)
    {
    }

    /** @param  bool  $isNew  whether the record is being made */
    public static function read(Context $context, Node $list, RecordType $type, bool $isNew = false): ?self
    {
        $assignments = [];
        $items = $list->items();
        if ($items === []) {
            return $context->gap(
                'choose a field',
                "{$list->at}/0/field",
                self::chooser($context->about($type), $list->child('0'), $isNew),
                'missing',
                Words::say('Choose the field to set.'),
            );
        }
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue('and');
            }
            $field = self::field($context->about($type), $item, $isNew);
            if ($field === null) {
                continue;
            }
            $context->glue('to');
            $value = AssignedValues::read($context, $item->child('to'), $field, $type, $isNew);
            if ($value !== null) {
                $assignments[] = new Assignment($field, $value);
            }
        }
        $context->more('+ field', "{$list->at}/".count($items), Editor::begin(new \stdClass));

        return count($assignments) === count($items) ? new self($assignments) : null;
    }

    /** A field that a rule may set. */
    private static function field(Context $context, Node $item, bool $isNew): ?Field
    {
        $at = $item->child('field');
        $name = $at->text();
        $field = $context->type->field($name ?? '');
        $chooser = self::chooser($context, $item, $isNew);
        if ($field === null) {
            return $context->gap(
                $name ?? 'choose a field',
                $at->at,
                $chooser,
                $name === null ? 'missing' : 'unknown_field',
                $name === null ? Words::say('Choose the field to set.') : Words::say(
                    '{type} has no field ‘{name}’. Choose another.',
                    type: $context->type->label,
                    name: $name,
                ),
            );
        }
        $context->word($field->label, WordRole::Field, $at->at, $chooser);
        if (! $field->isSettable()) {
            return $context->problem(
                $at->at,
                'not_settable',
                $field->system ? Words::say('{field} is kept by the application and cannot be set.', field: $field->label)
                    : Words::say('{field} is computed from other fields and cannot be set.', field: $field->label),
            );
        }

        return $field;
    }

    /** Another field begins with the value that comes to mind first: now for a moment, otherwise still open. */
    private static function chooser(Context $context, Node $item, bool $isNew): Editor
    {
        $fields = array_values(array_filter($context->type->fields, static fn (Field $field): bool => $field->isSettable()));

        return Editor::choose('Set', static fn (): array => array_map(static fn (Field $field): Offer => new Offer(
            $field->label,
            ['field' => $field->name, 'to' => AssignedValues::first($field, $isNew)],
            at: $item->at,
            isChosen: $item->child('field')->text() === $field->name,
        ), $fields));
    }

    /** @return list<string> */
    public function labels(): array
    {
        return array_map(static fn (Assignment $assignment): string => $assignment->field->label, $this->all);
    }
}
