<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Engine\Engine;
use VividLedger\Engine\Firing;
use VividLedger\Engine\Stopped;

/** What a rule means, sentence by sentence. */
final class EngineTest extends TestCase
{
    private World $world;

    protected function setUp(): void
    {
        $this->world = new World;
    }

    /** @return iterable<string, array{array<string, mixed>, list<array<string, mixed>>, list<bool>}> rule, saves, whether each fires */
    public static function guards(): iterable
    {
        $urgent = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']]];
        $there = [['priority' => 'urgent'], ['code' => 'x'], ['priority' => 'low'], ['priority' => 'urgent'], ['priority' => 'urgent']];

        yield 'every time, as long as it holds' => [['onlyIf' => $urgent], $there, [true, true, false, true, false]];
        yield 'when it becomes true, and again on coming back' => [
            ['onlyIf' => $urgent, 'fires' => ['kind' => 'becomes_true']], $there, [true, false, false, true, false],
        ];
        yield 'once per record' => [
            ['onlyIf' => $urgent, 'fires' => ['kind' => 'once_per_record']], $there, [true, false, false, false, false],
        ];
        yield 'only at creation' => [['when' => ['kind' => 'created']], [[], ['code' => 'x'], ['code' => 'y']], [true, false, false]];
        yield 'only at changes' => [
            ['when' => ['kind' => 'changed']], [[], ['code' => 'x'], ['code' => 'x'], ['code' => null]], [false, true, false, true],
        ];
        yield 'at changes of a named field' => [
            ['when' => ['kind' => 'changed', 'fields' => ['status']]],
            [[], ['code' => 'x'], ['status' => 'closed'], ['status' => 'open', 'code' => 'y']], [false, false, true, true],
        ];
        yield 'a named field, becoming true by another' => [
            ['when' => ['kind' => 'changed', 'fields' => ['status']], 'onlyIf' => $urgent, 'fires' => ['kind' => 'becomes_true']],
            [
                [], ['priority' => 'urgent'], ['status' => 'waiting'], ['status' => 'open', 'priority' => 'low'],
                ['status' => 'closed', 'priority' => 'urgent'],
            ], [false, false, false, false, true],
        ];
        yield 'without conditions it becomes true when it is created' => [
            ['fires' => ['kind' => 'becomes_true']], [[], ['code' => 'x']], [true, false],
        ];
        yield 'a condition over a reference' => [
            [
                'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'customer.plan', 'value' => 'full']]],
                'fires' => ['kind' => 'becomes_true'],
            ],
            [
                ['customer' => 2], ['customer' => 1], ['code' => 'x'], ['customer' => null], ['customer' => 1],
            ], [false, true, false, false, true],
        ];
    }

    /**
     * @param  array<string, mixed>  $file
     * @param  list<array<string, mixed>>  $saves
     * @param  list<bool>  $fires
     */
    #[DataProvider('guards')]
    public function test_a_rule_fires_when_its_trigger_conditions_and_guard_say_so(array $file, array $saves, array $fires): void
    {
        $fired = $this->world->saves([$this->world->rule($file)], $saves);

        self::assertSame($fires, array_map(static fn (array $names): bool => $names !== [], $fired));
    }

    public function test_lines_set_fields_in_order_and_give_tasks_that_see_them(): void
    {
        $rule = $this->world->rule(['lines' => [
            ['kind' => 'set_fields', 'set' => [
                ['field' => 'priority', 'to' => ['kind' => 'value', 'value' => 'urgent']], ['field' => 'since', 'to' => ['kind' => 'now']],
                ['field' => 'due', 'to' => ['kind' => 'now']], [
                    'field' => 'owner', 'to' => ['kind' => 'person', 'person' => ['kind' => 'manager', 'of' => ['kind' => 'creator']]],
                ],
                [
                    'field' => 'notes', 'to' => ['kind' => 'copy', 'from' => 'customer.name'],
                ], ['field' => 'code', 'to' => ['kind' => 'clear']],
            ]],
            [
                'kind' => 'give_task', 'to' => ['kind' => 'manager', 'of' => ['kind' => 'owner']],
                'title' => '{number}: {priority} for {customer.name} {code}', 'due' => ['amount' => 2, 'unit' => 'day'],
            ],
        ]]);
        $decision = $this->world->decide([$rule], null, World::ticket(['code' => 'gone']));

        self::assertSame(
            ['urgent', '2026-11-24T08:40:00Z', '2026-11-24', 2, 'Brine & Barrow Hotel', null],
            array_map(
                static fn (string $field) => $decision->after?->value($field),
                ['priority', 'since', 'due', 'owner', 'notes', 'code'],
            ),
        );
        $task = $decision->firings()[0]->performance->tasks[0];
        self::assertSame('T-0007: Urgent for Brine & Barrow Hotel', $task->title);
        self::assertSame([1, 'owner Tomas Weld → manager Edda Marlow', false], [$task->person?->id, $task->path, $task->stoodIn]);
        self::assertSame('2026-11-26T08:40:00+00:00', $task->due?->format('c'));
    }

    public function test_nobody_found_or_somebody_who_left_is_stood_in_for_and_said_so(): void
    {
        $task = fn (array $to) => $this->world->decide(
            [$this->world->rule(['lines' => [['kind' => 'give_task', 'to' => $to, 'title' => 'Look', 'due' => null]]])],
            null,
            World::ticket(['owner' => 4]),
        )->firings()[0]->performance->tasks[0];
        $left = $task(['kind' => 'owner']);
        self::assertSame(
            ['Stan Inn', true, 'owner Gus Gone, who has left; Stan Inn stands in'],
            [$left->person?->name, $left->stoodIn, $left->path],
        );
        $top = $task(['kind' => 'manager', 'of' => ['kind' => 'manager', 'of' => ['kind' => 'manager', 'of' => ['kind' => 'creator']]]]);
        self::assertStringContainsString('manager Edda Marlow has no manager; Stan Inn stands in', $top->path);
        $this->world->fallback = null;
        self::assertNull($task(['kind' => 'owner'])->person);
    }

    public function test_a_line_that_cannot_be_done_is_told_and_the_rest_goes_on(): void
    {
        $rule = $this->world->rule(['lines' => [
            [
                'kind' => 'set_fields',
                'set' => [
                    ['field' => 'code', 'to' => ['kind' => 'copy', 'from' => 'subject']],
                    ['field' => 'priority', 'to' => ['kind' => 'value', 'value' => 'high']],
                ],
            ],
        ]]);
        $decision = $this->world->decide([$rule], null, World::ticket());

        self::assertSame(['failed', 'set'], array_column($decision->firings()[0]->performance->outcomes, 'kind'));
        self::assertSame([null, 'high'], [$decision->after?->value('code'), $decision->after?->value('priority')]);
    }

    public function test_rules_answer_in_order_and_see_what_earlier_ones_set(): void
    {
        $closed = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'closed']]];
        $close = $this->world->rule(['name' => 'close', 'when' => ['kind' => 'created'], 'lines' => [World::set('status', 'closed')]], 1);
        $seen = $this->world->rule(['name' => 'seen', 'when' => ['kind' => 'created'], 'onlyIf' => $closed], 2);

        self::assertSame([['close', 'seen']], $this->world->saves([$close, $seen], [[]]));
        self::assertSame([['close']], $this->world->saves([$seen, $close], [[]]));
    }

    public function test_a_change_by_a_rule_sets_off_other_rules_and_names_its_cause(): void
    {
        $first = $this->world->rule(
            ['name' => 'first', 'when' => ['kind' => 'changed', 'fields' => ['code']], 'lines' => [World::set('status', 'waiting')]],
            1,
        );
        $second = $this->world->rule(
            ['name' => 'second', 'when' => ['kind' => 'changed', 'fields' => ['status']], 'lines' => [World::set('paid', true)]],
            2,
        );
        $decision = $this->world->decide([$second, $first], World::ticket(), World::ticket(['code' => 'x']));

        self::assertSame(
            [['first', null], ['second', 0]],
            array_map(static fn (Firing $firing): array => [$firing->rule->name, $firing->parent], $decision->firings()),
        );
        self::assertSame('Status changed from Open to Waiting', $decision->firings()[1]->why->trigger);
    }

    public function test_rules_that_set_each_other_off_are_stopped_and_named(): void
    {
        $ping = $this->world->rule(
            ['name' => 'ping', 'when' => ['kind' => 'changed', 'fields' => ['code']], 'lines' => [World::set('paid', true)]],
            1,
        );
        $pong = $this->world->rule(
            ['name' => 'pong', 'when' => ['kind' => 'changed', 'fields' => ['paid']], 'lines' => [World::set('code', 'again')]],
            2,
        );
        $decision = $this->world->decide([$ping, $pong], World::ticket(), World::ticket(['code' => 'x']));
        $last = $decision->steps[count($decision->steps) - 1];

        self::assertInstanceOf(Stopped::class, $last);
        self::assertTrue($last->cameRound);
        self::assertSame(['ping', 'pong', 'ping'], array_map(static fn ($rule): string => $rule->name, $last->chain));
        self::assertCount(2, $decision->firings());
    }

    public function test_a_rule_does_not_answer_its_own_change(): void
    {
        $stamp = $this->world->rule(['when' => ['kind' => 'changed'], 'lines' => [World::set('since', ['kind' => 'now'])]]);
        $decision = $this->world->decide([$stamp], World::ticket(), World::ticket(['code' => 'x']));

        self::assertCount(1, $decision->steps);
    }

    public function test_a_chain_that_grows_too_long_is_stopped(): void
    {
        $rules = [];
        for ($depth = 0; $depth <= Engine::MAX_DEPTH; $depth++) {
            $rules[] = $this->world->rule([
                'name' => "r{$depth}", 'when' => ['kind' => 'changed', 'fields' => ['code']],
                'onlyIf' => [
                    'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'code', 'value' => "c{$depth}"]],
                ], 'lines' => [World::set('code', 'c'.($depth + 1))],
            ], $depth + 1);
        }
        // Backwards, so that each rule is set off by the change of the one before and not by the order alone.
        $decision = $this->world->decide(array_reverse($rules), World::ticket(), World::ticket(['code' => 'c0']));
        $last = $decision->steps[count($decision->steps) - 1];

        self::assertCount(Engine::MAX_DEPTH, $decision->firings());
        self::assertInstanceOf(Stopped::class, $last);
        self::assertFalse($last->cameRound);
    }

    public function test_why_not_names_the_first_thing_that_was_missing(): void
    {
        $examiner = new \VividLedger\Engine\RuleExplainer(World::schema(), $this->world->zone());
        $rule = $this->world->rule(['when' => [
            'kind' => 'changed', 'fields' => ['priority'],
        ], 'fires' => ['kind' => 'becomes_true'], 'onlyIf' => ['kind' => 'all', 'of' => [
            ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'], ['kind' => 'over', 'field' => 'cost', 'value' => '100'],
        ]]]);
        $ask = fn (array $before, array $after) => $examiner->examine(
            $rule,
            World::schema()->types['ticket'],
            new \VividLedger\Record\Change(World::ticket($before), World::ticket($after), 3, $this->world->now),
            new \VividLedger\Facts\View(World::ticket($after), $this->world),
        )->sentence;

        self::assertSame(
            'The rule did not fire: it starts when the ticket is changed in Priority, and this was another change.',
            $ask([], ['code' => 'x']),
        );
        self::assertSame(
            'The rule did not fire: ‘Cost is over € 100.00’ does not hold, the value is € 12.50.',
            $ask([], ['priority' => 'urgent', 'cost' => '12.50']),
        );
        self::assertSame(
            'The rule did not fire: ‘Cost is over € 100.00’ does not hold, the value is empty.',
            $ask([], ['priority' => 'urgent']),
        );
        self::assertSame('The rule fires.', $ask(['cost' => '1240.00'], ['priority' => 'urgent', 'cost' => '1240.00']));
    }
}
