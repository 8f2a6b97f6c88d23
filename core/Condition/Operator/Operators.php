<?php

declare(strict_types=1);

namespace VividLedger\Condition\Operator;

use VividLedger\Condition\Order;
use VividLedger\Condition\SubjectSlot;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Slot;

/** All operators, in the order they are offered. A new operator is a new file and a place here. */
final class Operators
{
    /** @return array<string, Operator> by kind */
    public static function all(): array
    {
        return Kinds::once(self::class, static function (): array {
            $all = [];
            foreach (Kinds::all(self::class, [
                new Is, new Negated(new Is, 'is_not', 'is not', [
                    '{left} (isn’t|!=|<>|≠|is other than|is anything but|is not equal to|does not equal|doesn’t equal|differs from|'
                        .'is different from|'
                        .'is not set to|is not at|is not on|not|is anything other than|is no longer) {value}',
                    '{left} (other than|must not be|may not be|cannot be) {value}',
                    '(it|{}) (has not been|has not become|is still not|must not be) {choice}',
                    'not [a |an ]{choice}[ {}| one]',
                    '[is ]still not {choice}',
                    '{left} has not become {value}',
                    'is not {choice}',
                    'isn’t {choice}',
                    '(it is|it’s|this is|{} is) (not|no longer) {choice}',
                    '(it|{}) isn’t {choice}', '{left} (has|have) not {value}', 'any {left} but {value}',
                ]),
                new OneOf, new Negated(new OneOf, 'not_one_of', 'is none of', [
                    '{left} (is not|isn’t|not) (in|one of|any of|either|among) {values}', '{left} is neither {values}',
                    '{left} (is not|isn’t) {several}',
                ]),
                new Contains, new Negated(new Contains, 'not_contains', 'does not contain', [
                    '{left} (doesn’t contain|does not include|doesn’t include|does not mention|doesn’t mention|has not|lacks) {value}',
                    '{value} is not in {left}',
                ]), new StartsWith,
                new Ordered(Order::Over), new Ordered(Order::AtLeast), new Ordered(Order::Under), new Ordered(Order::AtMost),
                new Ticked, new Negated(new Ticked, 'not_ticked', 'is not ticked', [
                    '{left} (is|=|:|equals|==|is set to) (not ticked|unticked|not checked|unchecked|off|false|no|not set|not on)',
                    '{left} isn’t (ticked|checked|on|set|true)', '(it is|it’s|{} is|is) not {left}', 'not {left}', '{left} != (true|yes)',
                ]),
                new Has, new Negated(new Has, 'has_not', 'has not', [
                    '{left} (does not have|doesn’t have|does not include|doesn’t include|do not include|has not|does not contain) '
                        .'[the tag |tag ]{value}',
                    '[{} ](does not have|doesn’t have|has not|has not got) [the ]tag {its}{value}',
                    '[{} ][is ]not tagged [with |as ]{its}{value}',
                    '[{} ](does not have|doesn’t have) the {its}{value} tag', 'without [the ]tag {its}{value}',
                ]), new Has('has_any'), new Has('has_all'), new Negated(new Has('has_any'), 'has_none', 'has none of',
                    ['{left} does not have any of {values}']),
                new Within(true), new Within(false),
                new InTeam, new InTeam(true), new IsUnder, new IsUnder(true),
                new HasChanged, new HasChanged('from'), new HasChanged('to'), new Was,
                new Crosses(isUp: true, isBy: false), new Crosses(isUp: false, isBy: false), new Crosses(isUp: true, isBy: true),
                new Crosses(isUp: false, isBy: true),
                new Negated(new IsEmpty, 'is_filled', 'is filled in', [
                    '{left} (isn’t|is not) (empty|blank|missing|nothing|unset)',
                    '{left} (is set|is given|is known|is present|is there|exists|is filled|is entered)',
                    '{left} has a value',
                    '(we|you) (have|know) {left}',
                    '{left} [address |number ]is (known|there|given)',
                    '(there is|it has|{} has|there’s|has) (a|an|some) {left}',
                    '{left} has (something in it|been filled in|been set)',
                    'with a {left}', '{has}', '{left} != (empty|blank|nothing)',
                ]), new IsEmpty,
            ]) as $operator) {
                $all[$operator->kind()] = $operator;
            }

            return $all;
        });
    }

    /** Between the field and the operand, as its sentence says it of a type of field: "is over", "is after". */
    public static function label(Operator $operator, FieldType $type): string
    {
        return Kinds::once(self::class." {$operator->kind()} {$type->name}", static fn (): string => $operator->shape()->verb(
            static fn (Slot $left): bool => $left instanceof SubjectSlot && $left->fits(new Field('', '', $type)),
        ));
    }

    /** Whether it looks at the change at hand. */
    public static function isOfChange(Operator $operator): bool
    {
        return $operator instanceof ChangeOperator;
    }

    /** Whether it asks about the person in a field, and so compares with something else than people. */
    public static function isOfPerson(Operator $operator): bool
    {
        return $operator instanceof PersonOperator;
    }

    /** @return list<Operator> */
    public static function fitting(FieldType $type): array
    {
        return array_values(array_filter(self::all(), static fn (Operator $operator): bool => $operator->fits($type)));
    }
}
