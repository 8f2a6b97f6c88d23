<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Record\Display;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Value;

/** What fields take, how they keep it, and how it is read. */
final class ValueTest extends TestCase
{
    /** @return iterable<string, array{string, mixed, mixed, string}> field, what is given, what is kept, how it reads */
    public static function taken(): iterable
    {
        yield 'text is trimmed' => ['subject', '  wilting ', 'wilting', 'wilting'];
        yield 'nothing but space is empty' => ['subject', " \t ", null, 'empty'];
        yield 'long text keeps its lines' => ['notes', "one\n two\n", "one\n two", "one\n two"];
        yield 'money gets its scale' => ['cost', 1240, '1240.00', '€ 1,240.00'];
        yield 'money from text' => ['cost', '-0.5', '-0.50', '€ -0.50'];
        yield 'large money keeps every digit' => ['cost', '123456789012345.67', '123456789012345.67', '€ 123,456,789,012,345.67'];
        yield 'a float means its shortest text' => ['hours', 0.1, '0.1', '0.1'];
        yield 'percent' => ['share', '12.5', '12.5', '12.5 %'];
        yield 'a tick' => ['paid', 'true', true, 'ticked'];
        yield 'a tick that is nothing' => ['paid', null, false, 'not ticked'];
        yield 'a date' => ['due', '2028-02-29', '2028-02-29', '29 Feb 2028'];
        yield 'a moment in another zone' => ['since', '2026-11-24T10:40+01:00', '2026-11-24T09:40:00Z', '24 Nov 2026 10:40'];
        yield 'a choice' => ['status', 'waiting', 'waiting', 'Waiting'];
        yield 'a person' => ['owner', '3', 3, 'Ines Okafor'];
        yield 'a reference' => ['customer', 1, 1, 'Brine & Barrow Hotel'];
    }

    #[DataProvider('taken')]
    public function test_a_value_is_kept_in_one_shape_and_reads_well(string $name, mixed $given, mixed $kept, string $reads): void
    {
        $world = new World;
        $field = World::schema()->types['ticket']->fields[$name];
        $value = Value::of($field, $given);

        self::assertSame($kept, $value);
        self::assertSame($value, Value::of($field, $value), 'what is kept is taken again, unchanged');
        self::assertSame($reads, (new Display($world, $world->zone()))->of($field, $value));
    }

    /** @return iterable<string, array{string, mixed, string}> */
    public static function refused(): iterable
    {
        yield 'text from a number' => ['subject', 7, 'wrong_type'];
        yield 'two lines in one' => ['subject', "a\nb", 'wrong_type'];
        yield 'a header in one line' => ['subject', "a\r\nBcc: x", 'wrong_type'];
        yield 'broken letters' => ['subject', "\xC3\x28", 'wrong_type'];
        yield 'too long' => ['code', 'sixsix', 'too_long'];
        yield 'no address' => ['email', 'not an address', 'wrong_type'];
        yield 'no number' => ['cost', '12,50', 'wrong_type'];
        yield 'too exact' => ['cost', '0.001', 'out_of_range'];
        yield 'too large' => ['cost', '1e20', 'out_of_range'];
        yield 'infinite' => ['cost', INF, 'wrong_type'];
        yield 'a list' => ['cost', [1], 'wrong_type'];
        yield 'no such day' => ['due', '2026-02-29', 'wrong_type'];
        yield 'another way to write a day' => ['due', '24.11.2026', 'wrong_type'];
        yield 'a moment without a zone' => ['since', '2026-11-24T09:40:00', 'wrong_type'];
        yield 'a moment that does not exist' => ['since', '2026-11-24T25:00:00Z', 'wrong_type'];
        yield 'not offered' => ['status', 'gone', 'not_offered'];
        yield 'half a tick' => ['paid', 'maybe', 'wrong_type'];
        yield 'nobody' => ['owner', 0, 'wrong_type'];
        yield 'a negative id' => ['customer', '-1', 'wrong_type'];
    }

    #[DataProvider('refused')]
    public function test_what_does_not_fit_is_refused_with_a_reason(string $name, mixed $given, string $reason): void
    {
        $field = World::schema()->types['ticket']->fields[$name];
        try {
            Value::of($field, $given);
            self::fail('It was taken.');
        } catch (InvalidValue $invalid) {
            self::assertSame($reason, $invalid->reason);
            self::assertStringStartsWith($field->label, $invalid->getMessage());
        }
    }
}
