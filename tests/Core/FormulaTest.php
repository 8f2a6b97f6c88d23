<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Facts\View;
use VividLedger\Formula\ComputedFields;
use VividLedger\Formula\Formula;
use VividLedger\Formula\FormulaError;
use VividLedger\Record\InvalidValue;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** What formulas mean, and where they say what they did not understand. */
final class FormulaTest extends TestCase
{
    private const RECORD = [
        'cost' => '10.00', 'hours' => '2.5', 'share' => '12.5', 'due' => '2026-12-24', 'status' => 'open', 'paid' => true, 'code' => 'Übr',
        'notes' => null,
    ];

    /** @return iterable<string, array{string, string|bool|null}> */
    public static function meanings(): iterable
    {
        yield 'decimals are exact' => ['0.1 + 0.2 == 0.3', true];
        yield 'times before plus' => ['cost + hours * 2', '15.00'];
        yield 'brackets' => ['(cost + hours) * 2', '25.00'];
        yield 'a quotient' => ['cost / 3', '3.33'];
        yield 'rounding is half away from zero' => ['round(0 - cost / 16, 1)', '-0.60'];
        yield 'a minus in front' => ['-cost + 1', '-9.00'];
        yield 'empty makes empty' => ['cost + customer.open', null];
        yield 'and compares as false' => ['customer.open > 0 or customer.open <= 0', false];
        yield 'not of that is true' => ['not (customer.open > 0)', true];
        yield 'empty is explicit' => ['empty(notes) and not empty(code)', true];
        yield 'null is empty' => ['notes == null', true];
        yield 'text without case' => ['code == "ÜBR" and code != "ubr"', true];
        yield 'text joined' => ['length(code ~ "abc") == 6', true];
        yield 'a choice by its label' => ['status == "Open"', true];
        yield 'a choice by its value' => ['status != "closed"', true];
        yield 'a tick box' => ['paid and not customer.key', true];
        yield 'dates' => ['due > "2026-11-24" and year(due) == 2026 and month(due) == 12', true];
        yield 'days from today' => ['days(today(), due)', '30.00'];
        yield 'one or the other' => ['cost > 100 ? cost : hours', '2.50'];
        yield 'least and most' => ['most(least(cost, 3), abs(0 - 4))', '4.00'];
        yield 'a small factor' => ['cost * 0.00009 > 0.0008 and cost * 0.00009 < 0.001', true];
        yield 'digits no binary number has' => ['123456789012345.123456789012 - 123456789012345.123456789011 == 0.000000000001', true];
        yield 'over a reference' => ['customer.plan == "Full care"', true];
    }

    #[DataProvider('meanings')]
    public function test_it_means(string $text, string|bool|null $expected): void
    {
        $world = new World;
        $formula = Formula::of($text, World::schema(), World::schema()->types['ticket'], $world->zone());
        $view = new View(World::made('ticket', 7, self::RECORD + ['customer' => 1]), $world);
        $value = is_bool($expected) ? $formula->holds($view) : $formula->value($view, new Field('x', 'X', FieldType::Number));
        self::assertSame($expected, $value);
    }

    /** @return iterable<string, array{string, int, string}> a formula, the character, and a part of what is said */
    public static function errors(): iterable
    {
        yield 'an unknown field' => ['cost > coste', 8, 'no field ‘coste’'];
        yield 'an unknown field over a reference' => ['customer.planet == "x"', 1, 'no field ‘customer.planet’'];
        yield 'an unknown function' => ['1 + sqrt(cost)', 5, 'no function ‘sqrt’'];
        yield 'something missing' => ['cost > ', 8, 'missing'];
        yield 'an open bracket' => ['(cost', 1, 'not closed'];
        yield 'numbers and texts' => ['cost > "much"', 8, 'cannot be compared'];
        yield 'a sum of dates' => ['cost + due', 8, 'Due is a date'];
        yield 'a choice that is not offered' => ['status == "Opne"', 11, 'does not offer ‘Opne’'];
        yield 'logic of numbers' => ['cost and paid', 1, 'true or false'];
        yield 'too few values' => ['days(due)', 1, 'takes 2 values'];
        yield 'methods of objects' => ['code.toString()', 1, 'only reads fields'];
        yield 'lists' => ['[1, 2]', 1, ''];
        yield 'patterns' => ['code matches "/x/"', 1, ''];
    }

    #[DataProvider('errors')]
    public function test_an_error_names_the_character(string $text, int $position, string $said): void
    {
        try {
            Formula::of($text, World::schema(), World::schema()->types['ticket'], new \DateTimeZone('UTC'));
            self::fail('It should not be understood.');
        } catch (FormulaError $error) {
            self::assertStringContainsString($said, $error->getMessage());
            self::assertSame($position, $error->position, $error->getMessage());
        }
    }

    public function test_division_by_zero_and_overflow_are_told_and_harm_nothing(): void
    {
        $world = new World;
        foreach (['cost / (hours - 2.5)' => 'division by zero', 'cost * 999999999999999' => 'at most 15 digits'] as $text => $said) {
            $rule = $world->rule(['lines' => [World::set('cost', ['kind' => 'formula', 'formula' => $text]), World::set('paid', true)]]);
            $decision = $world->decide([$rule], null, World::ticket(['cost' => '10.00', 'hours' => '2.5']));
            self::assertSame(['10.00', true], [$decision->after?->value('cost'), $decision->after?->value('paid')]);
            self::assertStringContainsString($said, (string) $decision->firings()[0]->performance->outcomes[0]['why']);
        }
    }

    public function test_a_formula_field_follows_its_fields_and_says_what_it_cannot_be(): void
    {
        $ticket = World::ticket(['cost' => '10.00', 'hours' => '4.0']);
        self::assertSame('2.50', $ticket->value('rate'));
        $world = new World;
        $decision = $world->decide([$world->rule(['lines' => [World::set('hours', '5')]])], null, $ticket);
        self::assertSame('2.00', $decision->after?->value('rate'));
        $type = World::schema()->types['ticket'];
        foreach (['cost +' => 'missing', 'customer.open' => 'has no field', 'rate * 2' => 'plain fields', 'days(due, today())' => 'clock',
            'code' => 'does not fit'] as $text => $said) {
            $made = new RecordType(
                'ticket',
                'Ticket',
                'Tickets',
                'T',
                'subject',
                'owner',
                [...$type->ownFields(), $field = new Field('x', 'X', FieldType::Number, formula: $text)],
            );
            self::assertStringContainsString(
                $said,
                (string) ComputedFields::trouble($text === 'customer.open' ? $type : $made, $field),
                $text,
            );
        }
        $this->expectException(InvalidValue::class);
        Formula::of('cost / 0', World::schema(), $type, $world->zone())->value(
            new View($ticket, $world),
            new Field('x', 'X', FieldType::Number),
        );
    }
}
