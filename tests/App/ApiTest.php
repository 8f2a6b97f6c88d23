<?php

declare(strict_types=1);

namespace Tests\App;

use App\StandIn\MailRoom;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;

/** What scripts rely on: cursors, many at once, people by their handles, and refusals that say where and what. */
final class ApiTest extends AppTestCase
{
    /** @return iterable<string, array{string, int}> what is sent, and the byte where it stops being JSON */
    public static function broken(): iterable
    {
        yield 'a comma too many' => ['{"file": {"on": "ticket",}}', 25];
        yield 'quotes left out' => ['{file: 1}', 1];
        yield 'it ends too early' => ['{"file": ["a", ', 15];
        yield 'two values' => ['{"a": 1} x', 9];
        yield 'a number that is none' => ['{"a": 01}', 6];
        yield 'a bracket of the other kind' => ['{"a": [1}', 8];
        yield 'a text without an end' => ['{"a": "b', 6];
        yield 'single quotes' => ["{'a': 1}", 1];
    }

    #[DataProvider('broken')]
    public function test_what_is_no_json_is_told_where(string $text, int $position): void
    {
        $answer = $this->raw('POST', 'rules/read', $text);
        $this->assertRefused($answer, 400, 'malformed_json');
        self::assertSame($position, $answer->json('problems.0.position'));
    }

    public function test_several_records_are_saved_each_as_if_alone(): void
    {
        $rule = $this->inForce($this->demoFile('010-urgent-ticket'));
        $customer = $this->customer()['id'];
        $old = $this->ticket(['customer' => $customer])['record'];
        $good = ['subject' => 'New', 'customer' => $customer, 'status' => 'open', 'priority' => 'urgent', 'owner' => 'bram.castellan'];
        $answer = $this->as('ines.okafor', 'POST', 'records/ticket/several', ['records' => [
            ['values' => $good], ['values' => ['subject' => ''] + $good], [
                'id' => $old['id'], 'version' => 1, 'values' => ['priority' => 'urgent'],
            ], ['id' => $old['id'], 'version' => 1, 'values' => ['priority' => 'low']], ['values' => $good],
        ]])->assertOk();
        self::assertSame(['created', 'refused', 'changed', 'refused', 'created'], $answer->json('*.result'));
        self::assertSame('/values/subject', $answer->json('1.problem.problems.0.at'));
        self::assertSame('stale_version', $answer->json('3.problem.code'));
        self::assertSame(
            [[$rule], [], [$rule], [], [$rule]],
            array_map(static fn (?array $saved): array => array_column($saved['fired'] ?? [], 'rule'), $answer->json('*.saved')),
        );
        self::assertSame(3, DB::table('tasks')->where('rule_id', $rule)->count());
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', 'records/ticket/several', ['records' => [['id' => $old['id'], 'values' => []]]]),
            422,
            'invalid_request',
            '/records/0/version',
        );
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', 'records/ticket/several', ['records' => array_fill(0, 201, ['values' => $good])]),
            422,
            'invalid_request',
            '/records',
        );
    }

    public function test_people_go_by_handle_or_by_id(): void
    {
        $bram = $this->person('bram.castellan');
        $this->inForce([
            'name' => 'Look', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null]],
        ]);
        $ticket = $this->ticket(['owner' => 'bram.castellan', 'priority' => 'urgent'])['record'];
        self::assertSame([$bram->id, 'bram.castellan'], [$ticket['values']['owner'], $ticket['handles']['owner']]);
        $task = $this->as('ines.okafor', 'GET', 'tasks?assignee=bram.castellan')->assertOk()->json('tasks.0');
        self::assertSame([$bram->id, 'bram.castellan'], [$task['assigneeId'], $task['assigneeHandle']]);
        self::assertSame($task, $this->as('ines.okafor', 'GET', "tasks/{$task['id']}")->json());
        self::assertSame([$task], $this->as('ines.okafor', 'GET', "records/ticket/{$ticket['id']}/tasks")->json());
        self::assertSame([$task['id']], $this->as('ines.okafor', 'GET', "tasks?assignee={$bram->id}")->json('tasks.*.id'));
        $moved = $this->as('ines.okafor', 'PATCH', 'tasks', ['ids' => [$task['id']], 'assigneeId' => 'lena.abara'])->assertOk()->json('0');
        self::assertSame('lena.abara', $moved['assigneeHandle']);
        $this->as(
            'ines.okafor',
            'PATCH',
            'company',
            ['fallbackPersonId' => 'ines.okafor'],
        )->assertOk()->assertJsonPath('fallbackPersonId', $this->person('ines.okafor')->id);
        $this->assertRefused(
            $this->as('ines.okafor', 'PATCH', 'tasks', ['ids' => [$task['id']], 'assigneeId' => 'nobody']),
            422,
            'unknown_value',
            '/assigneeId',
        );
        $this->assertRefused(
            $this->as(
                'ines.okafor',
                'PATCH',
                "records/ticket/{$ticket['id']}",
                ['version' => $ticket['version'], 'values' => ['owner' => 'nobody']],
            ),
            422,
            'invalid_values',
            '/values/owner',
        );
        self::assertSame('ines.okafor', $this->as('ines.okafor', 'GET', 'ledger?show=tasks')->json('entries.0.whoHandle'));
    }

    public function test_moments_are_what_they_say_or_refused(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $this->ticket(['priority' => 'urgent']);
        $task = (int) DB::table('tasks')->value('id');
        $before = DB::table('tasks')->where('id', $task)->value('due_at');
        foreach (['10000-01-01', 'tomorrow', '0999-12-31', '2026-02-30', '1 January', '24/12/2026'] as $odd) {
            $this->assertRefused(
                $this->as('ines.okafor', 'PATCH', 'tasks', ['ids' => [$task], 'dueAt' => $odd]),
                422,
                'invalid_request',
                '/dueAt',
            );
        }
        self::assertSame($before, DB::table('tasks')->where('id', $task)->value('due_at'));
        $this->as(
            'ines.okafor',
            'PATCH',
            'tasks',
            ['ids' => [$task], 'dueAt' => '2026-12-01T10:00:00+01:00'],
        )->assertOk()->assertJsonPath('0.dueAt', '2026-12-01T09:00:00Z');
    }

    public function test_everything_can_be_read_from_end_to_end_and_what_comes_since(): void
    {
        $this->inForce(['name' => 'Note', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null],
                [
                    'kind' => 'send_message', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'channel' => 'app',
                    'subject' => 'S', 'body' => '<p>B</p>',
                ],
            ]]);
        $customer = $this->customer()['id'];
        for ($count = 0; $count < 60; $count++) {
            $this->ticket(['customer' => $customer, 'subject' => "No {$count}"]);
            $this->app->make(MailRoom::class)->takeMail(
                "Message-ID: <{$count}@x.example>\r\nFrom: a@x.example\r\nTo: b@x.example\r\nSubject: {$count}\r\n\r\nText",
            );
        }
        foreach (['tasks' => ['tasks?status=all&whose=all&limit=25', 'tasks.*.id'], 'messages' => ['messages?status=all&limit=25', '*.id'],
            'mail_room' => ['mail-room?search=', 'letters.*.id'], 'entries' => ['ledger?', 'entries.*.number']] as $table => [$path,
                $ids]) {
            $all = DB::table($table)->orderBy('id')->pluck('id')->map(intval(...))->all();
            foreach (['before' => [PHP_INT_MAX, array_reverse($all)], 'after' => [0, $all]] as $cursor => [$at, $expected]) {
                $read = [];
                do {
                    $page = $this->as('ines.okafor', 'GET', "{$path}&{$cursor}={$at}")->assertOk()->json($ids);
                    $page = is_array($page) ? $page : [];
                    array_push($read, ...$page);
                    $at = end($page);
                } while ($page !== []);
                self::assertSame($expected, $read, "{$table} {$cursor}");
            }
            $this->assertRefused($this->as('ines.okafor', 'GET', "{$path}&before=5&after=1"), 422, 'invalid_request', '/after');
        }
        self::assertSame(
            DB::table('records_ticket')->orderBy('id')->limit(25)->pluck('id')->all(),
            $this->as('ines.okafor', 'GET', 'records/ticket?sort=number')->json('rows.*.id'),
        );
        self::assertSame(
            DB::table('records_ticket')->orderByDesc('id')->limit(25)->pluck('id')->all(),
            $this->as('ines.okafor', 'GET', 'records/ticket?sort=-number')->json('rows.*.id'),
        );
    }

    public function test_an_empty_object_is_an_object(): void
    {
        $customer = $this->created('customer', ['name' => 'Nobody’s'])['record'];
        $text = (string) $this->as('ines.okafor', 'GET', "records/customer/{$customer['id']}")->getContent();
        self::assertStringContainsString('"handles":{"created_by"', $text);
        DB::table('records_customer')->where('id', $customer['id'])->update(['created_by' => null, 'updated_by' => null]);
        self::assertStringContainsString(
            '"handles":{}',
            (string) $this->as('ines.okafor', 'GET', "records/customer/{$customer['id']}")->getContent(),
        );
        $answer = $this->as('ines.okafor', 'POST', 'records/customer', ['values' => 'x']);
        $this->assertRefused($answer, 422, 'invalid_request', '/values');
        self::assertStringContainsString('has to be an object', (string) $answer->json('problems.0.message'));
    }

    /** @return iterable<string, array{string, string, array<string, mixed>, string}> */
    public static function misspelt(): iterable
    {
        $open = ['kind' => 'is', 'field' => 'status', 'value' => 'open'];
        yield 'a filter' => [
            'GET', 'records/ticket?filter='.rawurlencode((string) json_encode(['kind' => 'all', 'of' => [$open + ['vlaue' => 'x']]])), [],
            '/filter/of/0/vlaue',
        ];
        yield 'a kept condition' => [
            'POST', 'named-conditions',
            ['recordType' => 'ticket', 'name' => 'Open', 'file' => ['kind' => 'all', 'of' => [$open], 'nott' => true]], '/file/nott',
        ];
        yield 'a ladder' => [
            'POST', 'ladders',
            [
                'name' => 'L',
                'rungs' => [['after' => ['amount' => 1, 'unit' => 'day'], 'to' => ['kind' => 'owner'], 'do' => ['tell'], 'dues' => 1]],
            ],
            '/rungs/0/dues',
        ];
    }

    /** @param  array<string, mixed>  $body */
    #[DataProvider('misspelt')]
    public function test_what_says_nothing_is_told_at_its_place(string $method, string $path, array $body, string $at): void
    {
        $answer = $this->as('ines.okafor', $method, $path, $body);
        self::assertSame(422, $answer->getStatusCode());
        self::assertContains($at, $answer->json('problems.*.at'));
    }

    private function raw(string $method, string $path, string $body): TestResponse
    {
        return $this->actingAs($this->person('ines.okafor'), 'sanctum')->call(
            $method,
            "/api/{$path}",
            [],
            [],
            [],
            ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json'],
            $body,
        );
    }
}
