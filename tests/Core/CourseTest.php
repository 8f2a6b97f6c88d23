<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Firing;
use VividLedger\Engine\ReadyAgain;
use VividLedger\Engine\Stopped;
use VividLedger\Record\Record;

/** How one change goes its course over several records: parents, children, records made, refusals and bounds. */
final class CourseTest extends TestCase
{
    private World $world;

    protected function setUp(): void
    {
        $this->world = new World;
    }

    public function test_a_line_sets_the_record_it_refers_to_and_rules_there_answer(): void
    {
        $this->world->records['customer:1'] = World::made('customer', 1, ['name' => 'Hotel', 'owner' => 2, 'open' => '2']);
        $count = $this->world->rule(['name' => 'Count', 'when' => ['kind' => 'created'], 'lines' => [
            ['kind' => 'set_fields', 'on' => 'customer', 'set' => [['field' => 'open', 'to' => ['kind' => 'add', 'amount' => '1']]]],
        ]], 1);
        $many = $this->world->rule([
            'name' => 'Many', 'on' => 'customer', 'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'at_least', 'field' => 'open', 'value' => '3']],
            ], 'fires' => ['kind' => 'becomes_true'],
            'lines' => [World::set('key', true)],
        ], 2);
        $decision = $this->world->decide([$count, $many], null, World::ticket());

        self::assertSame([['Count', 'ticket:7', null], ['Many', 'customer:1', 1]], $this->told($decision));
        self::assertSame(['3', true], $this->ends($decision, 'customer', 1, 'open', 'key'));
    }

    public function test_lines_that_reach_the_same_record_add_up(): void
    {
        $this->world->records['customer:1'] = World::made('customer', 1, ['name' => 'Hotel', 'open' => '0']);
        $add = ['kind' => 'set_fields', 'on' => 'customer', 'set' => [['field' => 'open', 'to' => ['kind' => 'add', 'amount' => '1']]]];
        $decision = $this->world->decide(
            [$this->world->rule(['lines' => [$add, $add]], 1), $this->world->rule(['lines' => [$add]], 2)],
            null,
            World::ticket(),
        );

        self::assertSame(['3'], $this->ends($decision, 'customer', 1, 'open'));
        self::assertCount(1, $decision->others, 'it is written once');
    }

    public function test_a_bound_holds_or_refuses(): void
    {
        $rule = fn (string $beyond): array => [
            'lines' => [
                [
                    'kind' => 'set_fields', 'on' => 'customer',
                    'set' => [['field' => 'open', 'to' => ['kind' => 'add', 'amount' => '9', 'beyond' => $beyond]]],
                ],
            ],
        ];
        $stop = $this->world->decide([$this->world->rule($rule('stop'))], null, World::ticket());
        self::assertSame(['5'], $this->ends($stop, 'customer', 1, 'open'));

        $refuse = $this->world->decide([$this->world->rule($rule('refuse'))], null, World::ticket());
        self::assertSame('Open tickets would be 9, and is at most 5.', $refuse->refusal?->message);
    }

    public function test_children_are_set_where_they_fit(): void
    {
        foreach ([10 => 'open', 11 => 'closed', 12 => 'waiting'] as $id => $status) {
            $this->world->records["ticket:{$id}"] = World::made(
                'ticket',
                $id,
                ['subject' => "T{$id}", 'customer' => 1, 'status' => $status],
            );
        }
        $this->world->records['ticket:13'] = World::made('ticket', 13, ['subject' => 'Elsewhere', 'customer' => 2, 'status' => 'open']);
        $rule = $this->world->rule(['on' => 'customer', 'when' => ['kind' => 'changed', 'fields' => ['plan']], 'lines' => [[
            'kind' => 'set_fields', 'on' => 'ticket.customer', 'where' => [
                'kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'status', 'value' => 'closed']],
            ],
            'set' => [['field' => 'priority', 'to' => ['kind' => 'value', 'value' => 'high']]],
        ]]]);
        $before = $this->world->records['customer:1'];
        $decision = $this->world->decide([$rule], $before, new Record('customer', 1, 2, ['plan' => 'basic'] + $before->values));

        self::assertSame([10, 12], array_map(static fn (array $pair): int => $pair[1]->id, $decision->others));
        self::assertSame(['high'], $this->ends($decision, 'ticket', 10, 'priority'));
    }

    public function test_a_record_that_is_made_sets_off_rules_of_its_own(): void
    {
        $make = $this->world->rule(['name' => 'Make', 'when' => [
            'kind' => 'changed', 'fields' => ['status'], 'to' => 'closed',
        ], 'lines' => [
            ['kind' => 'create_record', 'type' => 'ticket', 'as' => 'check', 'set' => [
                [
                    'field' => 'subject', 'to' => ['kind' => 'text', 'text' => 'Check on {subject}'],
                ], ['field' => 'parent', 'to' => ['kind' => 'this']], ['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'open']],
            ]],
        ]], 1);
        $greet = $this->world->rule(['name' => 'Greet', 'when' => ['kind' => 'created'], 'lines' => [World::set('priority', 'urgent')]], 2);
        $before = World::ticket();
        $decision = $this->world->decide([$make, $greet], $before, new Record('ticket', 7, 2, ['status' => 'closed'] + $before->values));

        self::assertCount(1, $decision->others);
        [$was, $made] = $decision->others[0];
        self::assertNull($was, 'it did not exist');
        self::assertSame(
            ['Check on Ficus wall wilting', 7, 'urgent'],
            [$made->value('subject'), $made->value('parent'), $made->value('priority')],
        );
        self::assertSame(['Make', 'Greet'], array_column($this->told($decision), 0));
    }

    public function test_a_refusal_ends_everything_and_says_at_which_field(): void
    {
        $first = $this->world->rule(['name' => 'First', 'lines' => [World::set('paid', true)]], 1);
        $refuse = $this->world->rule([
            'name' => 'No', 'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'ticked', 'field' => 'paid']]],
            'lines' => [['kind' => 'refuse', 'field' => 'cost', 'message' => '{subject} is paid.']],
        ], 2);
        $decision = $this->world->decide([$first, $refuse], null, World::ticket());

        self::assertSame(
            ['No', 'cost', 'Ficus wall wilting is paid.'],
            [$decision->refusal?->rule->name, $decision->refusal?->field, $decision->refusal?->message],
        );
    }

    public function test_rules_of_two_records_that_set_each_other_off_are_stopped(): void
    {
        $this->world->records['customer:1'] = World::made('customer', 1, ['name' => 'Hotel', 'open' => '0']);
        $up = $this->world->rule(['name' => 'Up', 'when' => [
            'kind' => 'related', 'related' => 'customer', 'happening' => 'changed', 'fields' => ['open'],
        ], 'lines' => [
            ['kind' => 'set_fields', 'set' => [['field' => 'hours', 'to' => ['kind' => 'add', 'amount' => '1']]]],
        ]], 1);
        $down = $this->world->rule(['name' => 'Down', 'when' => ['kind' => 'created_or_changed'], 'lines' => [
            ['kind' => 'set_fields', 'on' => 'customer', 'set' => [['field' => 'open', 'to' => ['kind' => 'add', 'amount' => '1']]]],
        ]], 2);
        $this->world->records['ticket:7'] = World::ticket();
        $before = World::ticket();
        $decision = $this->world->decide([$up, $down], $before, new Record('ticket', 7, 2, ['status' => 'waiting'] + $before->values));

        self::assertSame(['Down', 'Up'], array_column($this->told($decision), 0));
        $stopped = array_values(array_filter($decision->steps, static fn ($step): bool => $step instanceof Stopped));
        self::assertTrue($stopped[0]->cameRound);
        self::assertSame(['Down', 'Up', 'Down'], array_map(static fn ($rule): string => $rule->name, $stopped[0]->chain));
    }

    public function test_a_guard_is_ready_again_when_its_condition_says_so(): void
    {
        $rule = $this->world->rule(['name' => 'Once', 'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']],
        ],
            'fires' => ['kind' => 'once_per_record', 'again' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']]]);
        $fired = $this->world->saves(
            [$rule],
            [
                ['priority' => 'urgent'], ['code' => 'a'], ['status' => 'closed', 'priority' => 'low'], ['status' => 'open'],
                ['priority' => 'urgent'], ['code' => 'b'],
            ],
        );
        // What the world keeps of a decision is only its firings; that it became ready is a step of its own.
        $before = World::ticket(['priority' => 'urgent']);
        $this->world->guards['1:ticket:7'] = [0, 1, $this->world->now, ['0:' => true]];
        $decision = $this->world->decide(
            [$rule],
            $before,
            new Record('ticket', 7, 9, ['status' => 'closed', 'priority' => 'low'] + $before->values),
        );

        self::assertSame(['Once'], $fired[0]);
        self::assertSame([], $fired[1]);
        self::assertInstanceOf(ReadyAgain::class, $decision->steps[0]);
        self::assertSame(1, $decision->steps[0]->epoch);
    }

    public function test_a_line_with_a_condition_of_its_own_sees_what_earlier_lines_did(): void
    {
        $rule = $this->world->rule(['lines' => [
            World::set('paid', true),
            ['onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'ticked', 'field' => 'paid']]]] + World::set('code', 'seen'),
            ['onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'not_ticked', 'field' => 'paid']]]] + World::set('notes', 'never'),
            ['off' => true] + World::set('cost', '5'),
        ]]);
        $decision = $this->world->decide([$rule], null, World::ticket());

        self::assertSame(
            ['seen', null, null],
            array_map(static fn (string $field) => $decision->after?->value($field), ['code', 'notes', 'cost']),
        );
    }

    /** @return list<array{string, string, ?int}> each firing: its rule, its record, and how deep it stands in the chain */
    private function told(Decision $decision): array
    {
        return array_map(
            static fn (Firing $firing): array => [
                $firing->rule->name, "{$firing->before->type}:{$firing->before->id}", $firing->parent() === null ? null : 1,
            ],
            $decision->firings(),
        );
    }

    /** @return list<string|int|bool|null> values of another record as it is in the end */
    private function ends(Decision $decision, string $type, int $id, string ...$fields): array
    {
        foreach ($decision->others as [, $after]) {
            if ($after->type === $type && $after->id === $id) {
                return array_map(static fn (string $field) => $after->value($field), array_values($fields));
            }
        }
        self::fail("{$type} {$id} did not change.");
    }
}
