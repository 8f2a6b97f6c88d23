<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\ConditionSlot;
use VividLedger\People\PersonExpressions;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldOffers;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Elsewhere;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OwnField;
use VividLedger\Shape\Slot\TypeName;
use VividLedger\Shape\WordRole;

/** Records of one type on a list: whose they are, which of them, in which columns, and by which date they are late or to come. */
final readonly class ListSection
{
    public const MOST_COLUMNS = 8;

    /**
     * @param  ?Who  $per  whose list a record belongs on; null where the timetable says that already
     * @param  list<Path>  $columns
     */
    public function __construct(
        public RecordType $type,
        public ?Who $per,
        public ?Condition $where,
        public array $columns,
        public ?Field $by,
    ) {
    }

    public static function shape(): Shape
    {
        $of = static fn (Scope $scope, array $around): ?RecordType => $scope->schema->type(
            is_string($around['on'] ?? null) ? $around['on'] : '',
        );

        return Shape::of()->says('the records {on} of {per} with the columns {columns}[, by {by}][, where {onlyIf}]')
            ->slot('on', new TypeName)->slot('per', new Elsewhere(new PersonSlot, $of))
            ->slot(
                'columns',
                new Elsewhere(new Many(new FieldPath, 'and', most: self::MOST_COLUMNS), $of),
            )->slot('by', new Elsewhere(new OwnField, $of))
            ->slot('onlyIf', new Elsewhere(new ConditionSlot, $of));
    }

    /** A further type on the list: "and Agreements of the owner with Title, by End". */
    public static function read(Context $context, Node $node, bool $parted): ?self
    {
        $problems = $context->problems();
        $types = $context->schema->types;
        $offers = static fn (): array => self::offers($context);
        $type = $types[$node->child('on')->text() ?? ''] ?? null;
        $context->glue('; and');
        if ($type === null) {
            return $context->gap(
                $node->child('on')->text() ?? 'choose what',
                $node->at,
                Editor::choose('Records too', $offers),
                'unknown_type',
                'Choose which records stand on the list too.',
            );
        }
        $about = $context->about($type);
        $context->choice($type->plural, WordRole::Field, $node->at, $offers);
        $context->glue('of');
        $per = PersonExpressions::word($about, $node->child('per'));
        $context->glue('with');
        $columns = self::columns($about, $node->child('columns'));
        $by = null;
        if ($parted) {
            $context->glue('by');
            $by = self::date($about, $node->child('by'));
        }
        $where = null;
        if ($node->child('onlyIf')->isMissing()) {
            $context->more('+ only some', $node->child('onlyIf')->at, Editor::conditions());
        } else {
            $where = ConditionReader::read($about, $node->child('onlyIf'), 'only', 1);
        }

        return $context->problems() > $problems || $per === null ? null : new self($type, $per, $where, $columns, $by);
    }

    /** @return list<Path> */
    public static function columns(Context $context, Node $node): array
    {
        $columns = [];
        $chooser = Editor::chooseSeveral('Columns', static fn (): array => FieldOffers::names($context));
        foreach ($node->items() as $item) {
            $path = $context->schema->path($context->type, $item->text() ?? '');
            if ($path === null) {
                $context->gap(
                    $item->text() ?? '?',
                    $node->at,
                    $chooser,
                    'unknown_field',
                    "{$context->type->label} has no field ‘{$item->text()}’. Choose the columns again.",
                );

                return [];
            }
            $columns[] = $path;
        }
        if ($columns === [] || count($columns) > self::MOST_COLUMNS) {
            $context->gap('choose columns', $node->at, $chooser, 'missing', 'Choose from 1 to '.self::MOST_COLUMNS.' columns.');
        } else {
            $context->word(
                implode(', ', array_map(static fn (Path $path): string => $path->label(), $columns)),
                WordRole::Field,
                $node->at,
                $chooser,
            );
        }

        return $columns;
    }

    /** The date that parts what is late from what is to come. */
    public static function date(Context $context, Node $node): ?Field
    {
        $type = $context->type;
        $field = $type->field($node->text() ?? '');
        $offers = static fn (): array => array_map(
            static fn (Field $field): Offer => new Offer($field->label, $field->name),
            array_values(array_filter($type->fields, static fn (Field $field): bool => $field->type->isMoment())),
        );
        if ($field === null || ! $field->type->isMoment()) {
            return $context->gap(
                $node->text() ?? 'choose a date',
                $node->at,
                Editor::choose('Date', $offers),
                'unknown_field',
                'Choose the date that parts what is late from what is to come.',
            );
        }
        $context->choice($field->label, WordRole::Field, $node->at, $offers);

        return $field;
    }

    /** @return list<Offer> */
    public static function offers(Context $context): array
    {
        $offers = [];
        foreach ($context->schema->types as $type) {
            $dates = array_values(array_filter(
                $type->ownFields(),
                static fn (Field $field): bool => $field->type === FieldType::Date || $field->type === FieldType::DateTime,
            ));
            if ($type->field($type->owner) !== null) {
                $offers[] = new Offer(
                    $type->plural,
                    [
                        'on' => $type->name, 'per' => ['kind' => 'owner'], 'columns' => [$type->title],
                    ] + ($dates === [] ? [] : ['by' => $dates[0]->name]),
                    'Records too',
                );
            }
        }

        return $offers;
    }
}
