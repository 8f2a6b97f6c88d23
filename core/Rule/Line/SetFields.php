<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Engine\Performance;
use VividLedger\Record\InvalidValue;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\FieldReader;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Value\AssignedValues;

/** Sets one or several fields of the record, in the order written: "Set Review to Needed and Stage since to now". */
final readonly class SetFields implements Line
{
    /** @param  list<Assignment>  $assignments */
    public function __construct(private array $assignments)
    {
    }

    public static function kind(): string
    {
        return 'set_fields';
    }

    public static function label(): string
    {
        return 'Set fields';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->glue('Set');
        $assignments = [];
        $items = $node->child('set')->items();
        if ($items === []) {
            return $context->gap('choose a field', $node->child('set')->at.'/0/field', Edit::SetField, 'missing', 'Choose the field to set.');
        }
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue('and');
            }
            $field = FieldReader::settable($context, $item->child('field'));
            if ($field === null) {
                continue;
            }
            $context->glue('to');
            $value = AssignedValues::read($context, $item->child('to'), $field);
            if ($value !== null) {
                $assignments[] = new Assignment($field, $value);
            }
        }

        return count($assignments) === count($items) ? new self($assignments) : null;
    }

    public function perform(Performance $performance): void
    {
        foreach ($this->assignments as $assignment) {
            try {
                $performance->set($assignment->field, $assignment->value->for($assignment->field, $performance));
            } catch (InvalidValue $invalid) {
                $performance->failed($assignment->field->label, $invalid->getMessage());
            }
        }
    }
}
