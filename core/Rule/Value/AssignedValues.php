<?php

declare(strict_types=1);

namespace VividLedger\Rule\Value;

use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Words\Words;

/** All kinds of assigned value, in the order they are offered. A new kind is a new file and one line here. */
final class AssignedValues
{
    /** @var list<class-string<AssignedValue>> */
    public const ALL = [
        FixedValue::class, Stamp::class, Shifted::class, CalendarDay::class, FoundPerson::class, Added::class, Subtracted::class,
        Multiplied::class, WithMember::class, WithoutMember::class,
        WrittenText::class, AppendedLine::class, CopiedValue::class, Reckoned::class, ThisOne::class, MadeOne::class, Cleared::class,
    ];

    /** @return list<class-string<AssignedValue>> */
    public static function all(): array
    {
        return Kinds::all(self::class, self::ALL);
    }

    /** @return list<class-string<AssignedValue>> */
    public static function fitting(Field $field): array
    {
        return array_values(array_filter(self::all(), static fn (string $value): bool => $value::fits($field)));
    }

    /** @return array<string, mixed> what a field is set to before anything is chosen */
    public static function first(Field $field, bool $isNew): array
    {
        return match (true) {
            $field->type->isMoment() => ['kind' => Stamp::kind()],
            $field->type === FieldType::Tick => ['kind' => FixedValue::kind(), 'value' => true],
            $field->type->isSet() && ! $isNew => ['kind' => WithMember::kind()],
            default => ['kind' => FixedValue::kind()],
        };
    }

    /**
     * @param  RecordType  $type  whose field is set
     * @param  bool  $isNew  whether the record is being made
     */
    public static function read(Context $context, Node $node, Field $field, RecordType $type, bool $isNew): ?AssignedValue
    {
        $editor = Editor::value($type->name, $field, static fn (): array => array_merge([], ...array_map(
            static fn (string $value): array => $value::offers($context, $field, $isNew),
            self::fitting($field),
        )), wrap: FixedValue::kind());
        foreach (self::all() as $value) {
            if ($value::kind() !== $node->kind()) {
                continue;
            }
            if (! $value::fits($field)) {
                return $context->gap(
                    'choose a value',
                    $node->at,
                    $editor,
                    'wrong_type',
                    Words::say('That does not fit {field}. Choose another value.', field: $field->label),
                );
            }

            return $value::read($context->at($field, $type), $node, $field, $editor);
        }

        return $context->gap('choose a value', $node->at, $editor, 'missing', Words::say(
            'Choose what {field} becomes.',
            field: $field->label,
        ));
    }
}
