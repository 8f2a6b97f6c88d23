<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Condition\Given\Given;
use VividLedger\Condition\Given\GivenMoment;
use VividLedger\Condition\Operator\ChangeOperator;
use VividLedger\Condition\Operator\Operand;
use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Condition\Operator\PersonOperator;
use VividLedger\Condition\Operator\SpanOperator;
use VividLedger\People\PersonExpressions;
use VividLedger\Record\CauseKind;
use VividLedger\Record\EventKind;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\Readable;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Part;
use VividLedger\Shape\Reads;
use VividLedger\Shape\Row;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Amount;
use VividLedger\Time\Unit;

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

        return match ($kind) {
            'formula' => self::formula($context, $node),
            'made_by', 'not_made_by' => self::madeBy($context, $node, $kind === 'not_made_by', $row),
            'named' => self::named($context, $node, $row),
            'happened' => self::happened($context, $node, $row),
            default => self::comparison($context, $node, $row, $depth),
        };
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

    private static function comparison(Context $context, Node $node, Row $row, int $depth): ?Condition
    {
        $left = $node->child('total')->raw === null
            ? FieldReader::path($context, $node->child('field'), Edit::Field)
            : TotalReader::read($context, $node->child('total'));
        if ($left === null) {
            return null;
        }
        $operator = self::operator($context, $node, $left);
        if ($operator === null) {
            return null;
        }
        if ($operator instanceof SpanOperator) {
            return self::span($context, $node, $left, $operator, $row, $depth);
        }
        $compared = $operator instanceof PersonOperator ? $operator->compared($left->field()) : $left->field()->unbounded();
        $operands = self::operands($context, $node, $operator, $compared);
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
        $operator = Operators::all()[$node->kind()] ?? null;
        if ($operator === null) {
            return $context->gap(
                $kind->text() ?? 'compare',
                $kind->at,
                Edit::Operator,
                'unknown_operator',
                "Choose how {$left->label()} is compared.",
            );
        }
        if (! $operator->fits($type)) {
            return $context->gap(
                $operator->label($type),
                $kind->at,
                Edit::Operator,
                'wrong_type',
                "‘{$operator->label($type)}’ does not fit {$left->label()}. Choose another comparison.",
            );
        }
        if ($operator instanceof ChangeOperator && ! ($left instanceof Path && $left->hops === [])) {
            return $context->gap(
                $operator->label($type),
                $kind->at,
                Edit::Operator,
                'wrong_type',
                "‘{$operator->label($type)}’ looks at the change of the record itself, and {$left->label()} is not part of it.",
            );
        }
        $context->word($operator->label($type), WordRole::Glue, $kind->at, Edit::Operator);

        return $operator;
    }

    /** @return ?list<string|int|bool|Given> */
    private static function operands(Context $context, Node $node, Operator $operator, Field $field): ?array
    {
        if ($operator->operand() === Operand::Nothing) {
            return [];
        }
        if ($operator->operand() === Operand::One) {
            $value = self::operand($context, $node->child('value'), $operator, $field);

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

    private static function operand(Context $context, Node $node, Operator $operator, Field $field): string|int|bool|Given|null
    {
        if (! is_array($node->raw) || array_is_list($node->raw)) {
            return FieldReader::value($context, $field, $node, Edit::Operand);
        }

        return $operator->ofNothing() === null
            ? $context->gap(
                'choose a value',
                $node->at,
                Edit::Operand,
                'wrong_type',
                "‘{$operator->label($field->type)}’ compares {$field->label} with a value only.",
            )
            : GivenReader::read($context, $node, $field, Edit::Operand);
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
        $amount = TimeReader::amount($node->child('value'));
        if ($amount === null || $amount->amount < 1 || ($day && $amount->unit->isShort())) {
            return $context->gap(
                'choose how long',
                $node->child('value')->at,
                Edit::Span,
                'wrong_type',
                'Give a whole number and a unit, such as 7 days.',
            );
        }
        $context->word($amount->unit->label($amount->amount), WordRole::Value, $node->child('value')->at, Edit::Span);
        $now = new GivenMoment(new Amount(0, Unit::Day), $context->zone, $day);
        $far = new GivenMoment(
            new Amount($operator->ahead() ? $amount->amount : -$amount->amount, $amount->unit),
            $context->zone,
            $day,
            $context->directory->calendar(null),
        );

        $text = $row->text();
        $whole = TotalReader::where($context, $node->child('total'), $left, $depth);
        if ($whole === null) {
            return null;
        }

        return $operator->ahead() ? new SpanComparison($whole, $now, $far, $text) : new SpanComparison($whole, $far, $now, $text);
    }

    private static function formula(Context $context, Node $node): ?FormulaHolds
    {
        $formula = FormulaReader::read($context, $node->child('formula'));
        if ($formula === null) {
            return null;
        }
        if ($formula->term->type !== \VividLedger\Formula\FormulaType::Truth) {
            return $context->problem(
                $node->child('formula')->at,
                'wrong_type',
                "A condition comes out true or false; this gives {$formula->term->type->value}.",
                1,
            );
        }

        return new FormulaHolds($formula);
    }

    private static function madeBy(Context $context, Node $node, bool $negated, Row $row): ?MadeBy
    {
        $context->word('the change', WordRole::Field, $node->child('field')->at, Edit::Field);
        $kinds = static fn (): array => [new Offer('was made by', 'made_by'), new Offer('was not made by', 'not_made_by')];
        $context->choice($negated ? 'was not made by' : 'was made by', WordRole::Glue, $node->child('kind')->at, $kinds);
        $by = $node->child('by');
        $way = MadeBy::WAYS[$by->text() ?? ''] ?? null;
        $offers = static fn (): array => [
            ...array_map(static fn (string $way, string $label): Offer => new Offer($label, $way), array_keys(MadeBy::WAYS), MadeBy::WAYS),
            ...PersonExpressions::offers($context),
        ];
        if ($way !== null) {
            $context->choice($way, WordRole::Value, $by->at, $offers);

            return new MadeBy(CauseKind::from((string) $by->text()), null, $negated, $row->text());
        }
        $person = is_array($by->raw) ? PersonExpressions::read($context, $by) : null;
        if ($person === null) {
            return $context->gap('choose by whom', $by->at, Edit::Offer, 'missing', 'Choose who or what made the change.', $offers);
        }
        $context->choice($person->wording(), WordRole::Person, $by->at, $offers);

        return new MadeBy(null, $person, $negated, $row->text());
    }

    private static function happened(Context $context, Node $node, Row $row): ?Happened
    {
        $at = $node->child('event');
        $event = EventKind::tryFrom($at->text() ?? '');
        $offers = static fn (): array => array_map(
            static fn (EventKind $kind): Offer => new Offer($kind->label(), $kind->value),
            Happened::EVENTS,
        );
        $context->word('it', WordRole::Field, $node->child('field')->at, Edit::Field);
        if ($event === null || ! in_array($event, Happened::EVENTS, true)) {
            return $context->gap('choose what arrives', $at->at, Edit::Offer, 'missing', 'Choose what has to happen.', $offers);
        }
        $context->choice($event->label(), WordRole::Value, $at->at, $offers);

        return new Happened($event, $row->text());
    }

    private static function named(Context $context, Node $node, Row $row): ?NamedCondition
    {
        $name = $node->child('name')->text() ?? '';
        $offers = static fn (): array => array_map(
            static fn (string $known): Offer => new Offer($known, $known),
            $context->directory->namedConditions($context->type->name),
        );
        $file = $context->directory->namedCondition($context->type->name, $name);
        $context->word('it is one of', WordRole::Glue, $node->child('field')->at, Edit::Field);
        if ($file === null) {
            return $context->gap(
                $name === '' ? 'choose a named condition' : $name,
                $node->child('name')->at,
                Edit::Offer,
                'unknown_named',
                $name === '' ? 'Choose a named condition.' : "There is no named condition ‘{$name}’ for {$context->type->plural}.",
                $offers,
            );
        }
        $context->choice("‘{$name}’", WordRole::Value, $node->child('name')->at, $offers);
        // A named condition cannot name another one, so a reading always ends.
        $inner = new Context($context->schema, new WithoutNamed($context->directory), $context->type, $context->zone);
        $condition = self::read($inner, new Node($file));

        return $condition === null
            ? $context->problem(
                $node->child('name')->at,
                'broken_named',
                "The named condition ‘{$name}’ has to be mended first: ".($inner->sheet->problems[0]->message ?? 'it is not finished.'),
            )
            : new NamedCondition($condition, $row->text());
    }
}
