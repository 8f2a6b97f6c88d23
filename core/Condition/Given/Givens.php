<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Schema\Field;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Words\Words;

/** What a field can be compared with besides a value, in the order it is offered. A new kind is a new file and one line here. */
final class Givens
{
    /** @var list<class-string<Given>> */
    public const ALL = [GivenMoment::class, GivenStart::class, GivenPerson::class, GivenField::class];

    /** @return list<class-string<Given>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    /** @return list<class-string<Given>> */
    public static function fitting(Field $field): array
    {
        return array_values(array_filter(self::all(), static fn (string $given): bool => $given::fits($field)));
    }

    /** @return list<Shape> */
    public static function shapes(): array
    {
        return array_map(static fn (string $given): Shape => $given::shape(), self::all());
    }

    /** @return list<Offer> */
    public static function offers(Context $context, Node $node, Field $field): array
    {
        return array_merge([], ...array_map(
            static fn (string $given): array => $given::offers($context, $node, $field),
            self::fitting($field),
        ));
    }

    /** @param  Editor  $editor  with which something else is chosen */
    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?Given
    {
        foreach (self::fitting($field) as $given) {
            if ($given::kind() === $node->kind()) {
                return $given::read($context, $node, $field, $editor);
            }
        }

        return $context->gap('choose a value', $node->at, $editor, 'wrong_type', Words::say(
            'Choose what {field} is compared with.',
            field: $field->label,
        ));
    }
}
