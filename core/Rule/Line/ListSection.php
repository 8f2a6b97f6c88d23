<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Condition\Condition;
use VividLedger\Condition\ConditionsBelow;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Elsewhere;
use VividLedger\Shape\Slot\FieldPath;
use VividLedger\Shape\Slot\Many;
use VividLedger\Shape\Slot\OwnField;

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

    /** @param  bool  $isParted  whether the list is parted by dates */
    public static function shape(bool $isParted = true): Shape
    {
        $of = static fn (Scope $scope, array $around): ?RecordType => $scope->schema->type(
            is_string($around['on'] ?? null) ? $around['on'] : '',
        );

        return Shape::of()->says('the records {on} of {per} with the columns {columns}[, by {by}][, where {onlyIf}]')
            ->shows($isParted ? '{on} of {per} with {columns} {by} {onlyIf}' : '{on} of {per} with {columns} {onlyIf}')
            ->slot('on', new ListedType)->slot('per', new PersonOfEach(new Elsewhere(new PersonSlot, $of)))
            ->slot('columns', new Columns(new Elsewhere(new Many(new FieldPath, 'and', most: self::MOST_COLUMNS), $of)))
            ->slot('by', new ListDate(new Elsewhere(new OwnField, $of), isFirst: false))
            ->slot('onlyIf', new ConditionsBelow(
                $of,
                static fn (Filled $read, Context $context): RecordType => self::seen($context, $read)->type,
                'only',
                '+ only some',
            ));
    }

    /** A further type on the list: "Agreements of the owner with Title, by End". */
    public static function read(Context $context, Node $node, bool $isParted): ?self
    {
        $read = self::shape($isParted)->read($context, $node);

        return $read === null ? null : new self(
            $read->the('on', RecordType::class),
            $read->the('per', Who::class),
            $read->any('onlyIf', Condition::class),
            $read->all('columns', Path::class),
            $read->any('by', Field::class),
        );
    }

    /** The reading as it is seen from the type of records at hand. */
    public static function seen(Context $context, Filled $read): Context
    {
        return $context->about($read->any('on', RecordType::class) ?? $context->type);
    }

    /**
     * @param  ?string  $at  the section that is changed; null for a new one
     * @return list<Offer>
     */
    public static function offers(Context $context, ?string $at = null, ?RecordType $now = null): array
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
                    at: $at,
                    isChosen: $now === null ? null : $now === $type,
                );
            }
        }

        return $offers;
    }
}
