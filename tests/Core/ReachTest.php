<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Message\Address;
use VividLedger\Message\Message;
use VividLedger\Record\Record;

/** Whom a line comes to: people found through the record, stand-ins, turns, loads, contacts, teams and followers. */
final class ReachTest extends TestCase
{
    private World $world;

    protected function setUp(): void
    {
        $this->world = new World;
        $this->world->records['customer:1'] = World::made(
            'customer',
            1,
            ['name' => 'Hotel', 'owner' => 2, 'email' => 'desk@hotel.example', 'language' => 'de'],
        );
    }

    /**
     * @return iterable<string, array{array<string, mixed>, array<string, mixed>, ?int, string}> expression, the ticket, the person, the
     *     way to them
     */
    public static function people(): iterable
    {
        yield 'the owner' => [['kind' => 'owner'], [], 3, 'owner Ines Okafor'];
        yield 'no owner' => [['kind' => 'owner'], ['owner' => null], 5, 'the record has no owner; Stan Inn stands in'];
        yield 'an owner who has left' => [['kind' => 'owner'], ['owner' => 4], 5, 'owner Gus Gone, who has left; Stan Inn stands in'];
        yield 'whoever made it' => [['kind' => 'creator'], ['created_by' => 2], 2, 'creator Tomas Weld'];
        yield 'the owner’s manager' => [
            ['kind' => 'manager', 'of' => ['kind' => 'owner']], [], 2, 'owner Ines Okafor → manager Tomas Weld',
        ];
        yield 'two levels up' => [
            ['kind' => 'manager', 'of' => ['kind' => 'manager', 'of' => ['kind' => 'owner']]], [], 1,
            'owner Ines Okafor → manager Tomas Weld → manager Edda Marlow',
        ];
        yield 'nobody above' => [['kind' => 'manager', 'of' => ['kind' => 'owner']], ['owner' => 1], 5, 'Edda Marlow'];
        yield 'somebody by name' => [['kind' => 'named', 'handle' => 'edda'], [], 1, 'Edda Marlow'];
        yield 'the customer’s owner' => [['kind' => 'in_field', 'path' => 'customer.owner'], [], 2, 'Tomas Weld'];
        yield 'the owner of no customer' => [['kind' => 'in_field', 'path' => 'customer.owner'], ['customer' => null], 5, 'stands in'];
        yield 'whoever did it' => [['kind' => 'doer'], [], 3, 'Ines Okafor'];
    }

    /**
     * @param  array<string, mixed>  $expression
     * @param  array<string, mixed>  $ticket
     */
    #[DataProvider('people')]
    public function test_a_person_is_found_and_the_way_is_told(array $expression, array $ticket, ?int $person, string $path): void
    {
        $rule = $this->world->rule(['lines' => [['kind' => 'give_task', 'to' => $expression, 'title' => 'Look', 'due' => null]]]);
        $task = $this->world->decide([$rule], null, World::ticket($ticket))->firings()[0]->performance->tasks[0];

        self::assertSame($person, $task->person?->id);
        self::assertStringContainsString($path, $task->path);
        self::assertSame(str_contains($path, 'stands in') || $person === 5, $task->stoodIn);
    }

    public function test_where_nobody_stands_in_that_is_told_too(): void
    {
        $this->world->fallback = null;
        $rule = $this->world->rule(['lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null]]]);
        $task = $this->world->decide([$rule], null, World::ticket(['owner' => null]))->firings()[0]->performance->tasks[0];

        self::assertNull($task->person);
        self::assertStringContainsString('nobody stands in', $task->path);
    }

    public function test_turns_go_round_the_team_without_those_who_left(): void
    {
        $rule = $this->world->rule([
            'when' => ['kind' => 'created'], 'lines' => [['kind' => 'assign', 'to' => ['kind' => 'in_turn', 'team' => 'Sales']]],
        ]);
        $owners = [];
        for ($count = 0; $count < 5; $count++) {
            $decision = $this->world->decide([$rule], null, World::ticket());
            $this->world->turns = array_replace($this->world->turns, $decision->turns);
            $owners[] = $decision->after?->value('owner');
        }

        self::assertSame([2, 3, 2, 3, 2], $owners);
    }

    public function test_the_least_loaded_is_found_counting_what_this_change_gave_already(): void
    {
        $this->world->open = [2 => 3, 3 => 1];
        $task = ['kind' => 'give_task', 'to' => ['kind' => 'least_loaded', 'team' => 'Sales'], 'title' => 'Look', 'due' => null];
        $decision = $this->world->decide([$this->world->rule(['lines' => [$task, $task, $task, $task]])], null, World::ticket());
        $given = array_map(static fn ($task): ?int => $task->person?->id, $decision->firings()[0]->performance->tasks);

        self::assertSame([3, 3, 2, 3], $given, 'at three each, the first of the team comes first');
    }

    /** @return iterable<string, array{list<array<string, mixed>>, list<string>, string}> recipients, addresses, a part of the way */
    public static function recipients(): iterable
    {
        $person = static fn (array $expression): array => ['kind' => 'person', 'person' => $expression];
        yield 'the owner' => [[$person(['kind' => 'owner'])], ['ines@larkmoss.example'], 'owner Ines Okafor'];
        yield 'an address' => [[['kind' => 'address', 'address' => 'desk@x.example']], ['desk@x.example'], 'desk@x.example'];
        yield 'the customer’s address' => [
            [['kind' => 'field', 'path' => 'customer.email']], ['desk@hotel.example'], 'E-mail desk@hotel.example',
        ];
        yield 'a customer as a contact' => [[['kind' => 'field', 'path' => 'customer']], ['desk@hotel.example'], 'Customer Hotel'];
        yield 'a team, without those who left' => [
            [['kind' => 'team', 'team' => 'Sales']], ['tomas@larkmoss.example', 'ines@larkmoss.example'], 'Sales',
        ];
        yield 'followers' => [[['kind' => 'followers']], ['edda@larkmoss.example'], 'followers'];
        yield 'the same person twice gets it once' => [
            [$person(['kind' => 'owner']), $person(['kind' => 'named', 'handle' => 'ines']), ['kind' => 'team', 'team' => 'Sales']],
            ['ines@larkmoss.example', 'tomas@larkmoss.example'], 'owner Ines Okafor; ',
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $to
     * @param  list<string>  $addresses
     */
    #[DataProvider('recipients')]
    public function test_a_message_reaches_its_recipients(array $to, array $addresses, string $path): void
    {
        $this->world->follows['ticket:7'] = [1];
        $message = $this->sent($to);

        self::assertSame($addresses, array_map(static fn (Address $address): string => $address->address, $message->to ?? []));
        self::assertStringContainsString($path, $message->path ?? '');
    }

    public function test_a_contact_is_written_to_in_its_language(): void
    {
        $message = $this->sent(
            [['kind' => 'field', 'path' => 'customer']],
            '<p><span data-merge="due">Due</span></p>',
            World::ticket(['due' => '2026-03-01']),
        );
        self::assertSame('1. März 2026', $message?->text);

        $this->world->records['customer:1'] = World::made('customer', 1, ['name' => 'Hotel', 'email' => 'desk@hotel.example']);
        $message = $this->sent(
            [['kind' => 'field', 'path' => 'customer']],
            '<p><span data-merge="due">Due</span></p>',
            World::ticket(['due' => '2026-03-01']),
        );
        self::assertSame('1 Mar 2026', $message?->text);
    }

    public function test_nobody_to_write_to_is_told_and_nothing_is_sent(): void
    {
        $this->world->records['customer:1'] = World::made('customer', 1, ['name' => 'Hotel']);
        $rule = $this->world->rule([
            'lines' => [
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'customer']], 'subject' => 'S', 'body' => '<p>B</p>'],
                World::set('paid', true),
            ],
        ]);
        $decision = $this->world->decide([$rule], null, World::ticket());
        $performance = $decision->firings()[0]->performance;

        self::assertSame([], $performance->messages);
        self::assertStringContainsString('Customer Hotel has no e-mail address', (string) json_encode($performance->outcomes));
        self::assertTrue($decision->after?->value('paid'), 'the lines after it go on');
    }

    /** @param  list<array<string, mixed>>  $to */
    private function sent(array $to, string $body = '<p>B</p>', ?Record $ticket = null): ?Message
    {
        $rule = $this->world->rule([
            'when' => ['kind' => 'created_or_changed'],
            'lines' => [['kind' => 'send_message', 'to' => $to, 'subject' => 'S', 'body' => $body]],
        ]);
        $ticket ??= World::ticket();
        $this->world->records['ticket:7'] = $ticket;
        $decision = $this->world->decide([$rule], $ticket, new Record('ticket', 7, 2, ['code' => 'x'] + $ticket->values));

        return $decision->firings()[0]->performance->messages[0] ?? null;
    }
}
