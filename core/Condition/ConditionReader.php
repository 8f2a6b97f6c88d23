<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Condition\Given\Given;
use VividLedger\Condition\Given\GivenMoment;
use VividLedger\Condition\Given\Givens;
use VividLedger\Condition\Operator\ChangeOperator;
use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Condition\Operator\PersonOperator;
use VividLedger\Condition\Operator\SpanOperator;
use VividLedger\Facts\Total;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\People;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Part;
use VividLedger\Shape\Row;
use VividLedger\Shape\TimeForm;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Amount;
use VividLedger\Time\Unit;
use VividLedger\Words\Words;

/** Reads a tree of conditions, a row for each. */
final class ConditionReader
{
    /** By kind; a new kind of group is a new file and one line here. */
    public const GROUPS = ['all' => All::class, 'any' => Any::class, 'none' => None::class];

    /** Nobody reads further than this; it only keeps a file from exhausting the machine. */
    private const MAX_DEPTH = 40;

    /** @return ?Condition null when something below is unfinished; the problems are noted */
    public static function read(Context $context, Node $node, string $margin = '', int $depth = 0): ?Condition
    {
        $kind = $node->kind();
        if (isset(self::GROUPS[$kind])) {
            return self::group($context, $node, self::GROUPS[$kind], $margin, $depth);
        }
        $row = $context->row(Part::Condition, $node, $margin, $depth);

        $statement = Statements::byKind()[$kind] ?? null;

        return $statement === null ? self::comparison($context, $node, $row, $depth) : $statement::read($context, $node, $row);
    }

    /** @return list<Offer> */
    private static function groups(): array
    {
        return array_map(
            static fn (string $kind, string $group): Offer => new Offer($group::wording(), $kind),
            array_keys(self::GROUPS),
            self::GROUPS,
        );
    }

    /** @param  class-string<Group>  $group */
    private static function group(Context $context, Node $node, string $group, string $margin, int $depth): ?Group
    {
        $context->row(Part::Group, $node, $margin, $depth);
        $parts = $node->child('of')->items();
        if ($depth > self::MAX_DEPTH) {
            return $context->problem($node->at, 'too_deep', Words::say('Groups nest at most {maxdepth} deep.', maxdepth: self::MAX_DEPTH));
        }
        if ($parts === [] && $depth === 0) {
            $context->word('always', WordRole::Value, $node->child('kind')->at, null);

            return new All([]);
        }
        $context->word($group::wording(), WordRole::Value, $node->child('kind')->at, Editor::choose('Holds when', self::groups(...)));
        if ($parts === []) {
            return $context->problem(
                $node->at,
                'empty_group',
                Words::say('This group has no condition yet. Add one, or remove the group.'),
            );
        }
        $read = [];
        foreach ($parts as $part) {
            $read[] = self::read($context, $part, '', $depth + 1);
        }
        $finished = array_values(array_filter($read));

        return count($finished) === count($read) ? new $group($finished) : null;
    }

    private static function comparison(Context $context, Node $node, Row $row, int $depth): ?Condition
    {
        $left = $node->child('total')->raw === null
            ? FieldReader::path($context, $node->child('field'), Subjects::chooser($context, $node))
            : TotalReader::read($context, $node->child('total'));
        if ($left === null) {
            return null;
        }
        $operator = self::operator($context, $node, $left);
        if ($operator === null) {
            return null;
        }
        if ($operator instanceof SpanOperator) {
            return self::span(
                context: $context, node: $node, left: $left, operator: $operator, row: $row, depth: $depth,
            );
        }
        $compared = $operator instanceof PersonOperator ? $operator->compared($left->field()) : $left->field()->unbounded();
        $operands = self::operands($context, $node, $operator, $compared, self::typeOf($context, $left, $operator));
        $wrong = $operator instanceof PersonOperator ? $operator->trouble($operands ?? [], $context->directory) : null;
        if ($wrong !== null) {
            $context->problem($node->child('value')->at, ...$wrong);
            $operands = null;
        }
        $whole = TotalReader::where($context, $node->child('total'), $left, $depth);

        return $operands === null || $whole === null ? null : new Comparison($whole, $operator, $operands, $row->text());
    }

    private static function operator(Context $context, Node $node, Readable $left): ?Operator
    {
        $kind = $node->child('kind');
        $type = $left->field()->type;
        $chooser = Subjects::operators($context, $node, $left);
        $operator = Operators::all()[$node->kind()] ?? null;
        if ($operator === null) {
            return $context->gap(
                $kind->text() ?? 'compare',
                $kind->at,
                $chooser,
                'unknown_operator',
                Words::say('Choose how {field} is compared.', field: $left->label()),
            );
        }
        $label = Operators::label($operator, $type);
        if (! $operator->fits($type)) {
            return $context->gap(
                $label,
                $kind->at,
                $chooser,
                'wrong_type',
                Words::say('‘{operator}’ does not fit {field}. Choose another comparison.', operator: $label, field: $left->label()),
            );
        }
        if ($operator instanceof ChangeOperator && ! ($left instanceof Path && $left->hops === [])) {
            return $context->gap(
                $label,
                $kind->at,
                $chooser,
                'wrong_type',
                Words::say(
                    '‘{operator}’ looks at the change of the record itself, and {field} is not part of it.',
                    operator: $label,
                    field: $left->label(),
                ),
            );
        }
        $context->word($label, WordRole::Glue, $kind->at, $chooser);

        return $operator;
    }

    /** @return ?list<string|int|bool|Given> */
    private static function operands(Context $context, Node $node, Operator $operator, Field $field, ?string $type): ?array
    {
        if ($operator->operand() === Operand::Nothing) {
            return [];
        }
        if ($operator->operand() === Operand::One) {
            $value = self::operand($context, $node->child('value'), $operator, $field, $type);

            return $value === null ? null : [$value];
        }
        $values = [];
        $editor = Editor::value($type, $field, many: true);
        $list = $node->child('values');
        $items = $list->items();
        foreach ($items as $index => $item) {
            if ($index > 0) {
                $context->glue($index === count($items) - 1 ? 'or' : ',');
            }
            // The values of a list are chosen together, so each word opens the whole list.
            $value = FieldReader::value($context, $field, $item, $editor, $list->at);
            if ($value !== null) {
                $values[] = $value;
            }
        }
        if ($items === []) {
            return $context->gap('choose values', $list->at, $editor, 'missing', Words::say(
                'Choose at least one value of {field}.',
                field: $field->label,
            ));
        }

        return count($values) === count($items) ? $values : null;
    }

    private static function operand(
        Context $context,
        Node $node,
        Operator $operator,
        Field $field,
        ?string $type,
    ): string|int|bool|Given|null {
        $takesGiven = $operator->ofNothing() !== null;
        $editor = Editor::value(
            $type,
            $field,
            $takesGiven ? static fn (): array => Givens::offers($context, $node, $field) : null,
        );
        if (! is_array($node->raw) || array_is_list($node->raw)) {
            return FieldReader::value($context, $field, $node, $editor);
        }

        return $takesGiven ? Givens::read($context, $node, $field, $editor) : $context->gap(
            'choose a value',
            $node->at,
            $editor,
            'wrong_type',
            Words::say(
                '‘{operator}’ compares {field} with a value only.',
                operator: Operators::label($operator, $field->type),
                field: $field->label,
            ),
        );
    }

    /** Name of the record type whose field gives the values it is compared with; null for plain ones. */
    private static function typeOf(Context $context, Readable $left, Operator $operator): ?string
    {
        return match (true) {
            $operator instanceof PersonOperator && $operator->compared($left->field()) !== $left->field() => People::TYPE,
            $left instanceof Path => FieldReader::typeOf($context, $left),
            $left instanceof Total => $left->of === null ? null : $left->children->type,
            default => null,
        };
    }

    private static function span(
        Context $context,
        Node $node,
        Readable $left,
        SpanOperator $operator,
        Row $row,
        int $depth,
    ): ?SpanComparison {
        $day = $left->field()->type === FieldType::Date;
        $form = TimeForm::length(inDays: $day);
        $amount = TimeReader::amount($node->child('value'));
        if ($amount === null || $amount->amount < 1 || ($day && $amount->unit->isShort())) {
            return $context->gap(
                'choose how long',
                $node->child('value')->at,
                $form,
                'wrong_type',
                Words::say('Give a whole number and a unit, such as 7 days.'),
            );
        }
        $context->word($amount->unit->label($amount->amount), WordRole::Value, $node->child('value')->at, $form);
        $now = new GivenMoment(new Amount(0, Unit::Day), $context->zone);
        $far = new GivenMoment(
            new Amount($operator->ahead() ? $amount->amount : -$amount->amount, $amount->unit),
            $context->zone,
            $context->directory->calendar(null),
        );

        $text = $row->text();
        $whole = TotalReader::where($context, $node->child('total'), $left, $depth);
        if ($whole === null) {
            return null;
        }

        return $operator->ahead() ? new SpanComparison($whole, $now, $far, $text) : new SpanComparison($whole, $far, $now, $text);
    }
}
