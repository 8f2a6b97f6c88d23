<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Stories;
use Tests\Core\Support\World;
use VividLedger\Condition\All;
use VividLedger\Condition\Condition;
use VividLedger\Condition\None;
use VividLedger\Condition\Reasoning;
use VividLedger\Facts\View;
use VividLedger\Formula\ComputedFields;
use VividLedger\Record\Record;

/** What is said of conditions without looking at records is true of every record there can be. */
final class ReasoningTest extends TestCase
{
    private const CONDITIONS = 400;

    private const RECORDS = 60;

    public function test_never_and_always_are_never_said_in_error(): void
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket();
        $said = ['never' => 0, 'always' => 0, 'implies' => 0, 'open' => 0];
        for ($seed = 1; $seed <= self::CONDITIONS; $seed++) {
            $stories = new Stories($seed, World::schema(), ['tomas', 'ines'], ['customer' => [1, 2], 'ticket' => [7]]);
            $stories->teams = ['Sales', 'Board'];
            $one = $this->condition($world, $this->narrow($stories));
            $other = $this->condition($world, $this->narrow($stories));
            $both = new All([$one, $other]);
            $canHold = Reasoning::canHold($both);
            $always = Reasoning::alwaysHolds($one);
            $implies = Reasoning::implies($one, $other);
            $said[! $canHold ? 'never' : ($always ? 'always' : ($implies ? 'implies' : 'open'))]++;
            foreach ($this->records($stories) as $record) {
                $view = new View($record, $world);
                [$first, $second] = [$one->compile()($view), $other->compile()($view)];
                $where = "seed {$seed}: ".json_encode($one->explain($view, $this->display($world))).' and '.json_encode($other->explain(
                    $view,
                    $this->display($world),
                ));
                self::assertFalse(! $canHold && $first && $second, "never, but it holds: {$where}");
                self::assertFalse($always && ! $first, "always, but it does not hold: {$where}");
                self::assertFalse($implies && $first && ! $second, "one makes the other hold, but here it does not: {$where}");
            }
        }
        foreach (['never' => 20, 'implies' => 10, 'open' => 50] as $claim => $least) {
            self::assertGreaterThanOrEqual($least, $said[$claim], "enough of: {$claim} ".json_encode($said));
        }
    }

    public function test_an_example_meets_its_condition(): void
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket();
        $met = 0;
        for ($seed = 1; $seed <= 300; $seed++) {
            $stories = new Stories($seed, World::schema(), ['tomas', 'ines'], ['customer' => [1, 2], 'ticket' => [7]]);
            $condition = $this->condition($world, $this->narrow($stories));
            $example = Reasoning::example($condition);
            if ($example === null || array_filter(array_keys($example), static fn (string $name): bool => str_contains($name, '.')) !== []
                || in_array(0, $example, true)) {
                continue;
            }
            $record = World::ticket()->with(
                ComputedFields::with(World::schema()->types['ticket'], array_replace(World::ticket()->values, $example)),
            );
            if (array_diff_key($example, array_flip(['rate', 'created_at', 'created_by', 'updated_at', 'updated_by'])) !== $example) {
                continue;
            }
            if (array_filter(['moment', 'in_next', 'in_last', 'contains', 'starts_with', 'changed', 'was', 'formula', 'made_by', '"person"',
                '"total"', '"kind":"field"'], fn (string $free): bool => str_contains($this->last, $free)) !== []) {
                continue;
            }
            $met++;
            self::assertTrue($condition->compile()(new View($record, $world)), "seed {$seed}: ".$this->last.' with '.json_encode($example));
        }
        self::assertGreaterThan(60, $met);
    }

    /** @return iterable<string, array{array<mixed>, bool, bool}> condition, whether it can hold, whether it always does */
    public static function known(): iterable
    {
        $is = static fn (string $field, mixed $value): array => ['kind' => 'is', 'field' => $field, 'value' => $value];
        $all = static fn (array ...$of): array => ['kind' => 'all', 'of' => $of];
        $any = static fn (array ...$of): array => ['kind' => 'any', 'of' => $of];
        $none = static fn (array ...$of): array => ['kind' => 'none', 'of' => $of];
        yield 'two values at once' => [$all($is('status', 'open'), $is('status', 'closed')), false, false];
        yield 'all choices, but it may be empty' => [
            $any($is('status', 'open'), $is('status', 'waiting'), $is('status', 'closed')), true, false,
        ];
        yield 'all choices or empty' => [
            $any($is('status', 'open'), $is('status', 'waiting'), $is('status', 'closed'), ['kind' => 'is_empty', 'field' => 'status']),
            true, true,
        ];
        yield 'over 30 and under 12' => [
            $all(['kind' => 'over', 'field' => 'share', 'value' => '30'], ['kind' => 'under', 'field' => 'share', 'value' => '12']), false,
            false,
        ];
        yield 'over 12 and under 12.1 has no room' => [
            $all(['kind' => 'over', 'field' => 'share', 'value' => '12'], ['kind' => 'under', 'field' => 'share', 'value' => '12.1']),
            false, false,
        ];
        yield 'over 12 and under 12.2 has room' => [
            $all(['kind' => 'over', 'field' => 'share', 'value' => '12'], ['kind' => 'under', 'field' => 'share', 'value' => '12.2']), true,
            false,
        ];
        yield 'a date between two days that follow' => [
            $all(
                ['kind' => 'over', 'field' => 'due', 'value' => '2026-11-24'],
                ['kind' => 'under', 'field' => 'due', 'value' => '2026-11-25'],
            ),
            false, false,
        ];
        yield 'ticked and not' => [
            $all(['kind' => 'ticked', 'field' => 'paid'], ['kind' => 'not_ticked', 'field' => 'paid']), false, false,
        ];
        yield 'ticked or not' => [$any(['kind' => 'ticked', 'field' => 'paid'], ['kind' => 'not_ticked', 'field' => 'paid']), true, true];
        yield 'empty and in the next days' => [
            $all(
                ['kind' => 'is_empty', 'field' => 'due'],
                ['kind' => 'in_next', 'field' => 'due', 'value' => ['amount' => 7, 'unit' => 'day']],
            ),
            false, false,
        ];
        yield 'a member that it has not' => [
            $all(['kind' => 'has', 'field' => 'rooms', 'value' => 'spa'], ['kind' => 'has_not', 'field' => 'rooms', 'value' => 'spa']),
            false, false,
        ];
        yield 'filled in, and has none of all' => [
            $all(
                ['kind' => 'is_filled', 'field' => 'rooms'],
                ['kind' => 'has_none', 'field' => 'rooms', 'values' => ['lobby', 'spa', 'bar']],
            ),
            false, false,
        ];
        yield 'a text that is not itself' => [
            $all($is('code', 'A1'), ['kind' => 'is_not', 'field' => 'code', 'value' => 'a1']), false, false,
        ];
        yield 'a text that contains what it is' => [
            $all($is('code', 'A1'), ['kind' => 'not_contains', 'field' => 'code', 'value' => 'a']), false, false,
        ];
        yield 'a person who is another' => [$all($is('owner', 'ines'), $is('owner', 'tomas')), false, false];
        yield 'none of a thing and its opposite' => [
            $none($is('priority', 'low'), ['kind' => 'is_not', 'field' => 'priority', 'value' => 'low']), false, false,
        ];
        yield 'across a reference' => [
            $all($is('customer.plan', 'full'), ['kind' => 'is_empty', 'field' => 'customer.plan']), false, false,
        ];
        yield 'over more than the field can hold' => [['kind' => 'over', 'field' => 'customer.open', 'value' => '5'], false, false];
        yield 'nested, one way left' => [
            $all(
                $any($is('status', 'open'), $is('status', 'waiting')),
                $none($is('status', 'open')),
                ['kind' => 'is_not', 'field' => 'status', 'value' => 'waiting'],
            ),
            false, false,
        ];
    }

    /** @param  array<mixed>  $condition */
    #[\PHPUnit\Framework\Attributes\DataProvider('known')]
    public function test_what_is_certain_is_said(array $condition, bool $canHold, bool $always): void
    {
        $read = $this->condition(new World, $condition);
        self::assertSame([$canHold, $always], [Reasoning::canHold($read), Reasoning::alwaysHolds($read)]);
        self::assertSame(
            [! $always, ! $canHold],
            [Reasoning::canHold(new None([$read])), Reasoning::alwaysHolds(new None([$read]))],
            'and of its opposite',
        );
    }

    public function test_it_says_nothing_rather_than_search_for_ever(): void
    {
        $parts = [];
        for ($count = 1; $count <= 30; $count++) {
            $parts[] = [
                'kind' => 'any',
                'of' => [
                    ['kind' => 'contains', 'field' => 'notes', 'value' => "word {$count}"],
                    ['kind' => 'over', 'field' => 'cost', 'value' => (string) $count],
                    ['kind' => 'starts_with', 'field' => 'subject', 'value' => "{$count}"],
                ],
            ];
        }
        self::assertTrue(
            Reasoning::canHold($this->condition(
                new World,
                ['kind' => 'all', 'of' => [...$parts, ['kind' => 'none', 'of' => [['kind' => 'all', 'of' => $parts]]]]],
            )),
            'it cannot, but nothing is claimed that took too long to find out',
        );
    }

    private string $last = '';

    /** @param  array<mixed>  $condition */
    private function condition(World $world, array $condition): Condition
    {
        $this->last = (string) json_encode($condition);

        return $world->rule(['onlyIf' => ['kind' => 'all', 'of' => [$condition]]])->condition;
    }

    /** @return array<mixed> a condition about few fields, so that its parts meet */
    private function narrow(Stories $stories): array
    {
        $values = [
            'status' => ['open', 'waiting', 'closed'], 'priority' => ['low', 'high', 'urgent'], 'share' => ['12', '12.1', '30'],
            'due' => ['2026-11-24', '2026-11-25'], 'code' => ['A', 'AB', 'b'],
        ];
        $leaf = static function () use ($stories, $values): array {
            $field = $stories->one(array_keys($values));
            $kinds = match ($field) {
                'share', 'due' => ['over', 'at_least', 'under', 'at_most', 'is', 'is_not', 'is_empty', 'is_filled'],
                'code' => ['is', 'is_not', 'contains', 'not_contains', 'starts_with', 'is_empty', 'is_filled'],
                default => ['is', 'is_not', 'is_empty', 'is_filled', 'one_of', 'not_one_of'],
            };
            $kind = $stories->one($kinds);

            return ['kind' => $kind, 'field' => $field] + match ($kind) {
                'is_empty', 'is_filled' => [],
                'one_of', 'not_one_of' => ['values' => array_slice($values[$field], 0, $stories->random->getInt(1, 3))],
                default => ['value' => $stories->one($values[$field])],
            };
        };
        if ($stories->random->getInt(1, 6) === 1) {
            return $stories->condition(World::schema()->types['ticket']);
        }
        $of = static fn (): array => array_map(static fn (): array => $leaf(), range(1, $stories->random->getInt(1, 3)));

        return [
            'kind' => $stories->one(['all', 'any', 'none']),
            'of' => [...$of(), ['kind' => $stories->one(['all', 'any', 'none']), 'of' => $of()]],
        ];
    }

    /** @return iterable<Record> */
    private function records(Stories $stories): iterable
    {
        for ($count = 0; $count < self::RECORDS; $count++) {
            $values = [
                'status' => $stories->one([
                    'open', 'waiting', 'closed', null,
                ]), 'priority' => $stories->one(['low', 'high', 'urgent', null]), 'share' => $stories->one([
                    '11.9', '12.0', '12.1', '12.2', '30.0', '30.1', '-5.0', null,
                ]),
                'due' => $stories->one([
                    '2026-11-23', '2026-11-24', '2026-11-25', '2026-11-26', null,
                ]), 'code' => $stories->one(['A', 'a', 'AB', 'b', 'ba', 'zz', null]), 'paid' => $stories->one([true, false]),
            ];
            yield World::ticket($values);
        }
    }

    private function display(World $world): \VividLedger\Record\Display
    {
        return new \VividLedger\Record\Display($world, $world->zone());
    }
}
