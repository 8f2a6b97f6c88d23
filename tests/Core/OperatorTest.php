<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Facts\View;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;

/** What each comparison means, said once and for every one. */
final class OperatorTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string, mixed, list<mixed>, list<mixed>}> field, operator, operand, values for which it
     *     holds, values for which it does not
     */
    public static function meanings(): iterable
    {
        yield 'text is' => ['subject', 'is', 'Über', ['über', 'ÜBER'], ['uber', 'über x', null]];
        yield 'text is not' => ['subject', 'is_not', 'Über', ['uber', null], ['ÜBER']];
        yield 'text contains' => ['subject', 'contains', 'WILT', ['Ficus wilting', 'wilt'], ['wil', null]];
        yield 'text does not contain' => ['subject', 'not_contains', 'wilt', ['fine', null], ['Wilting']];
        yield 'text starts with' => ['subject', 'starts_with', 'fi', ['Ficus', 'fi'], ['a fig', null]];
        yield 'text is filled in' => ['subject', 'is_filled', null, ['x', '0'], [null]];
        yield 'text is empty' => ['subject', 'is_empty', null, [null], ['x', '0']];
        yield 'long text contains over lines' => ['notes', 'contains', 'two', ["one\nTWO\n"], ["one\n", null]];
        yield 'wildcards mean themselves' => ['subject', 'contains', '%_', ['50%_'], ['50 %x', 'anything']];
        yield 'e-mail is' => ['email', 'is', 'A@x.example', ['a@x.example'], ['b@x.example', null]];
        yield 'money is, by amount' => ['cost', 'is', '12.5', ['12.50'], ['12.51', '0.00', null]];
        yield 'money is over' => ['cost', 'over', '9.9', ['10.00', '9.91'], ['9.90', '9.00', '-10.00', null]];
        yield 'money is at least' => ['cost', 'at_least', '9.9', ['9.90', '100.00'], ['9.89', null]];
        yield 'money is under' => ['cost', 'under', '0', ['-0.01'], ['0.00', '0.01', null]];
        yield 'money is at most' => ['cost', 'at_most', '0', ['0.00', '-1.00'], ['0.01', null]];
        yield 'large money keeps its last digit' => ['cost', 'over', '999999999999999.98', ['999999999999999.99'], ['999999999999999.98']];
        yield 'numbers are no text' => ['hours', 'over', '9', ['10.0'], ['9.0', '8.9', null]];
        yield 'percent is at least' => ['share', 'at_least', '12.5', ['12.5'], ['12.4', null]];
        yield 'a date is after' => ['due', 'over', '2026-11-24', ['2026-11-25', '2027-01-01'], ['2026-11-24', '1999-12-31', null]];
        yield 'a date is on or before' => ['due', 'at_most', '2026-11-24', ['2026-11-24', '1999-12-31'], ['2026-11-25', null]];
        yield 'a moment is before' => [
            'since', 'under', '2026-11-24T09:40:00+01:00', ['2026-11-24T08:39:59Z'], ['2026-11-24T08:40:00Z', null],
        ];
        yield 'a moment is on or after' => [
            'since', 'at_least', '2026-11-24T08:40:00Z', ['2026-11-24T08:40:00Z'], ['2026-11-24T08:39:59Z', null],
        ];
        yield 'a choice is' => ['status', 'is', 'open', ['open'], ['closed', null]];
        yield 'a choice is not' => ['status', 'is_not', 'open', ['closed', null], ['open']];
        yield 'a choice is one of' => ['status', 'one_of', ['open', 'waiting'], ['open', 'waiting'], ['closed', null]];
        yield 'a choice is none of' => ['status', 'not_one_of', ['open', 'waiting'], ['closed', null], ['open']];
        yield 'a person is' => ['owner', 'is', 'ines', [3], [2, null]];
        yield 'a person is one of' => ['owner', 'one_of', ['ines', 'edda'], [1, 3], [2, null]];
        yield 'a person is in the team' => ['owner', 'in_team', 'Sales', [2, 3, 4], [1, 5, null]];
        yield 'a person is not in the team' => ['owner', 'not_in_team', 'Sales', [1, null], [2, 3]];
        yield 'a person is under, at any distance' => ['owner', 'under_person', 'edda', [2, 3, 4], [1, 5, null]];
        yield 'a person is not under' => ['owner', 'not_under_person', 'tomas', [1, 2, null], [3, 4]];
        yield 'a reference is' => ['customer', 'is', 'C-0001', [1], [2, null]];
        yield 'a reference is none of' => ['customer', 'not_one_of', ['C-0001'], [2, null], [1]];
        yield 'several choices have one' => ['rooms', 'has', 'spa', ['lobby,spa', 'spa'], ['lobby', null]];
        yield 'several choices have not' => ['rooms', 'has_not', 'spa', ['lobby', null], ['spa,bar']];
        yield 'several choices have any of' => ['rooms', 'has_any', ['spa', 'bar'], ['lobby,bar', 'spa'], ['lobby', null]];
        yield 'several choices have all of' => ['rooms', 'has_all', ['spa', 'bar'], ['lobby,spa,bar'], ['spa', null]];
        yield 'several choices have none of' => ['rooms', 'has_none', ['spa', 'bar'], ['lobby', null], ['bar']];
        yield 'it has a tag, whatever its case' => ['tags', 'has', 'Green ', ['green,tall'], ['greenish', null]];
        yield 'a date is in the next' => [
            'due', 'in_next', ['amount' => 7, 'unit' => 'day'], ['2026-11-24', '2026-12-01'], ['2026-11-23', '2026-12-02', null],
        ];
        yield 'a date is in the last' => [
            'due', 'in_last', ['amount' => 1, 'unit' => 'month'], ['2026-10-24', '2026-11-24'], ['2026-10-23', '2026-11-25', null],
        ];
        yield 'a moment is in the next' => [
            'since', 'in_next', ['amount' => 2, 'unit' => 'hour'], ['2026-11-24T10:40:00Z'],
            ['2026-11-24T10:40:01Z', '2026-11-24T08:39:59Z', null],
        ];
        yield 'a date compared with a moving date' => [
            'due', 'under', ['kind' => 'moment', 'amount' => -2, 'unit' => 'day'], ['2026-11-21'], ['2026-11-22', null],
        ];
        yield 'a field compared with a field' => ['cost', 'over', ['kind' => 'field', 'path' => 'hours'], [], ['10.00', null]];
        yield 'an empty other side' => ['cost', 'is_not', ['kind' => 'field', 'path' => 'hours'], ['10.00', null], []];
        yield 'a person compared with a person found' => [
            'owner', 'is', ['kind' => 'person', 'person' => ['kind' => 'creator']], [3], [2, null],
        ];
        // CrossesTest moves them.
        yield 'without a change nothing rose' => ['hours', 'rises_above', '1', [], ['2.0', null]];
        yield 'nor fell' => ['hours', 'falls_below', '1', [], ['0.0', null]];
        yield 'nor by so much' => ['hours', 'rises_by', '1', [], ['5.0', null]];
        yield 'up or down' => ['hours', 'falls_by', '1', [], ['5.0', null]];
        yield 'without a change nothing has changed' => ['status', 'has_changed', null, [], ['open', null]];
        yield 'nor changed from' => ['status', 'changed_from', 'open', [], ['open', null]];
        yield 'nor changed to' => ['status', 'changed_to', 'open', [], ['open', null]];
        yield 'and it was what it is' => ['status', 'was', 'open', ['open'], ['closed', null]];
        yield 'a tick box is ticked' => ['paid', 'ticked', null, [true], [false]];
        yield 'a tick box is not ticked' => ['paid', 'not_ticked', null, [false], [true]];
    }

    /**
     * @param  list<mixed>  $holds
     * @param  list<mixed>  $fails
     */
    #[DataProvider('meanings')]
    public function test_it_means(string $field, string $kind, mixed $operand, array $holds, array $fails): void
    {
        $world = new World;
        $context = new Context(World::schema(), $world, World::schema()->types['ticket'], $world->zone());
        $file = [
            'kind' => $kind, 'field' => $field,
        ] + (is_array($operand) && array_is_list($operand) ? ['values' => $operand] : ($operand === null ? [] : ['value' => $operand]));
        $condition = ConditionReader::read($context, new Node($file));
        self::assertNotNull($condition, (string) json_encode($context->sheet->problems));
        $test = $condition->compile();
        foreach ([...array_map(static fn (mixed $value): array => [$value, true], $holds),
            ...array_map(static fn (mixed $value): array => [$value, false], $fails)] as [$value, $expected]) {
            self::assertSame(
                $expected,
                $test(new View(World::made('ticket', 7, [$field => $value]), $world)),
                (string) json_encode($value),
            );
        }
    }

    public function test_a_path_goes_on_behind_a_person(): void
    {
        $world = new World;
        $holds = static function (string $path, string $kind, string $value, int $owner) use ($world): bool {
            $context = new Context(World::schema(), $world, World::schema()->types['ticket'], $world->zone());
            $condition = ConditionReader::read($context, new Node(['kind' => $kind, 'field' => $path, 'value' => $value]));
            self::assertNotNull($condition, (string) json_encode($context->sheet->problems));

            return $condition->compile()(new View(World::made('ticket', 7, ['owner' => $owner]), $world));
        };
        self::assertTrue($holds('owner.team', 'is', 'sales', 3));
        self::assertFalse($holds('owner.team', 'is', 'sales', 1));
        self::assertTrue($holds('owner.manager', 'is', 'tomas', 3));
        self::assertTrue($holds('owner.manager.team', 'is', 'Board', 2));
        self::assertFalse($holds('owner.manager', 'is', 'tomas', 1));
    }

    public function test_a_manager_is_found_however_deep_the_groups_are_nested(): void
    {
        $world = new World;
        $file = [
            'kind' => 'is', 'field' => 'owner',
            'value' => [
                'kind' => 'person', 'person' => ['kind' => 'manager', 'of' => ['kind' => 'manager', 'of' => ['kind' => 'creator']]],
            ],
        ];
        for ($depth = 0; $depth < 25; $depth++) {
            $file = ['kind' => $depth % 2 === 0 ? 'any' : 'all', 'of' => [$file]];
        }
        $context = new Context(World::schema(), $world, World::schema()->types['ticket'], $world->zone());
        $condition = ConditionReader::read($context, new Node($file));
        self::assertNotNull($condition, (string) json_encode($context->sheet->problems));
        self::assertTrue($condition->compile()(new View(World::made('ticket', 7, ['owner' => 1, 'created_by' => 3]), $world)));
    }

    public function test_every_operator_is_told_here_and_every_field_type_has_some(): void
    {
        $told = array_unique(array_map(static fn (array $case): string => $case[1], array_values(iterator_to_array(self::meanings()))));
        self::assertEqualsCanonicalizing(array_keys(Operators::all()), $told);
        foreach (FieldType::cases() as $type) {
            $labels = array_map(static fn ($operator): string => Operators::label($operator, $type), Operators::fitting($type));
            self::assertNotSame([], $labels, $type->value);
            self::assertSame($labels, array_values(array_unique($labels)), "{$type->value}: no two read alike");
        }
    }

    /** Groups, with every combination of three parts that hold or do not. */
    public function test_groups(): void
    {
        $world = new World;
        for ($bits = 0; $bits < 8; $bits++) {
            $parts = [];
            $count = 0;
            for ($part = 0; $part < 3; $part++) {
                $holds = ($bits >> $part & 1) === 1;
                $count += $holds ? 1 : 0;
                $parts[] = ['kind' => $holds ? 'is_empty' : 'is_filled', 'field' => 'code'];
            }
            foreach (['all' => $count === 3, 'any' => $count > 0, 'none' => $count === 0] as $kind => $expected) {
                $context = new Context(World::schema(), $world, World::schema()->types['ticket'], $world->zone());
                $condition = ConditionReader::read($context, new Node(['kind' => $kind, 'of' => $parts]));
                self::assertSame(
                    $expected,
                    $condition !== null && $condition->compile()(new View(World::ticket(), $world)),
                    "{$kind} {$bits}",
                );
            }
        }
    }
}
