<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Rule\Value\AssignedValues;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Node;

/** Fields of one record type with what they are set to, in the order written: "Review to Needed and Stage since to now". */
final readonly class Assignments
{
    /** @param  list<Assignment>  $all */
    private function __construct(public array $all)
    {
    }

    public static function read(Context $context, Node $list, RecordType $type): ?self
    {
        $assignments = [];
        $items = $list->items();
        if ($items === []) {
            return $context->gap('choose a field', "{$list->at}/0/field", Edit::SetField, 'missing', 'Choose the field to set.');
        }
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue('and');
            }
            $field = FieldReader::settable($context->about($type), $item->child('field'));
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

    /** @return list<string> */
    public function labels(): array
    {
        return array_map(static fn (Assignment $assignment): string => $assignment->field->label, $this->all);
    }
}
