<?php

declare(strict_types=1);

namespace VividLedger\Rule\Reading;

use VividLedger\Condition\All;
use VividLedger\Condition\Any;
use VividLedger\Condition\Comparison;
use VividLedger\Condition\Condition;
use VividLedger\Condition\Group;
use VividLedger\Condition\None;
use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Schema\Field;

/** Reads a tree of conditions, a row for each. */
final class ConditionReader
{
    /** By kind; a new kind of group is a new file and one line here. */
    public const GROUPS = ['all' => All::class, 'any' => Any::class, 'none' => None::class];

    private const MAX_DEPTH = 8;

    /** @return ?Condition null when something below is unfinished; the problems are noted */
    public static function read(Context $context, Node $node, string $margin = '', int $depth = 0): ?Condition
    {
        $kind = $node->kind();
        if (isset(self::GROUPS[$kind])) {
            return self::group($context, $node, self::GROUPS[$kind], $margin, $depth);
        }
        $context->row(Part::Condition, $node, $margin, $depth);

        return self::comparison($context, $node);
    }

    /** @param  class-string<Group>  $group */
    private static function group(Context $context, Node $node, string $group, string $margin, int $depth): ?Group
    {
        $context->row(Part::Group, $node, $margin, $depth);
        $parts = $node->child('of')->items();
        if ($depth > self::MAX_DEPTH) {
            return $context->problem($node->at, 'too_deep', 'Groups nest at most '.self::MAX_DEPTH.' deep.');
        }
        if ($parts === [] && $depth === 0) {
            $context->word('always', WordRole::Value, $node->child('kind')->at, null);

            return new All([]);
        }
        $context->word($group::wording(), WordRole::Value, $node->child('kind')->at, Edit::Group);
        if ($parts === []) {
            return $context->problem($node->at, 'empty_group', 'This group has no condition yet. Add one, or remove the group.');
        }
        $read = [];
        foreach ($parts as $part) {
            $read[] = self::read($context, $part, '', $depth + 1);
        }
        $finished = array_values(array_filter($read));

        return count($finished) === count($read) ? new $group($finished) : null;
    }

    private static function comparison(Context $context, Node $node): ?Comparison
    {
        $row = $context->rows[count($context->rows) - 1];
        $path = FieldReader::path($context, $node->child('field'), Edit::Field);
        if ($path === null) {
            return null;
        }
        $operator = self::operator($context, $node, $path->field);
        if ($operator === null) {
            return null;
        }
        $operands = self::operands($context, $node, $operator, $path->field);

        return $operands === null ? null : new Comparison($path, $operator, $operands, $row->text());
    }

    private static function operator(Context $context, Node $node, Field $field): ?Operator
    {
        $kind = $node->child('kind');
        $operator = Operators::all()[$node->kind()] ?? null;
        if ($operator === null) {
            return $context->gap($kind->text() ?? 'compare', $kind->at, Edit::Operator, 'unknown_operator', "Choose how {$field->label} is compared.");
        }
        if (! $operator->fits($field->type)) {
            return $context->gap($operator->label($field->type), $kind->at, Edit::Operator, 'wrong_type', "‘{$operator->label($field->type)}’ does not fit {$field->label}. Choose another comparison.");
        }
        $context->word($operator->label($field->type), WordRole::Glue, $kind->at, Edit::Operator);

        return $operator;
    }

    /** @return ?list<string|int|bool> */
    private static function operands(Context $context, Node $node, Operator $operator, Field $field): ?array
    {
        if ($operator->operand() === Operand::Nothing) {
            return [];
        }
        if ($operator->operand() === Operand::One) {
            $value = FieldReader::value($context, $field, $node->child('value'), Edit::Operand);

            return $value === null ? null : [$value];
        }
        $values = [];
        $list = $node->child('values');
        $items = $list->items();
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue($index === count($items) - 1 ? 'or' : ',');
            }
            // The values of a list are chosen together, so each word opens the whole list.
            $value = FieldReader::value($context, $field, $item, Edit::Operand, $list->at);
            if ($value !== null) {
                $values[] = $value;
            }
        }
        if ($items === []) {
            return $context->gap('choose values', $list->at, Edit::Operand, 'missing', "Choose at least one value of {$field->label}.");
        }

        return count($values) === count($items) ? $values : null;
    }
}
