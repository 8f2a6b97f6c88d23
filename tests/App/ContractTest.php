<?php

declare(strict_types=1);

namespace Tests\App;

use App\Evidence\Lists\BulkWorker;
use App\Models\Inbound\HookArrival;
use App\Models\Inbound\HookOutcome;
use App\Models\Outbound\LinkKind;
use App\Models\SignOffs\SignOffSeat;
use App\StandIn\MailRoom;
use App\Store\Access\PersonLinks;
use App\Store\Access\SecondFactor;
use App\Store\HouseClock;
use App\Store\SignOffs\SignOffLink;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use Tests\App\Access\RightsWalkTest;
use Tests\App\SignOffs\SignOffTest;
use Tests\App\Support\AppTestCase;

/** What the API answers is what docs/openapi.json says it answers, refusals included; and what it takes is as described. */
final class ContractTest extends AppTestCase
{
    private const LATER = '2026-12-24T12:00:00Z';

    /** @var array<string, mixed> */
    private array $document;

    private Validator $validator;

    /** @var array<string, true> operations that were tried */
    private array $tried = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->document = json_decode((string) file_get_contents(base_path('docs/openapi.json')), true, 512, JSON_THROW_ON_ERROR);
        $this->validator = new Validator(max_errors: 5);
        $schema = ['$id' => 'https://vividledger.example/api', 'components' => $this->asJsonSchema($this->document['components'])];
        $this->validator->resolver()?->registerRaw((string) json_encode($schema, JSON_THROW_ON_ERROR));
    }

    public function test_every_answer_is_as_described(): void
    {
        $rule = $this->inForce($this->demoFile('010-urgent-ticket'));
        $draft = $this->told('POST', '/api/rules', ['file' => ['lines' => []] + $this->demoFile('030-waiting-since')])->json();
        $customer = $this->told(
            'POST',
            '/api/records/{type}',
            ['values' => ['name' => 'Brine & Barrow Hotel', 'yearly_value' => 1200]],
            ['type' => 'customer'],
        )->json('record.id');
        $ticket = $this->told(
            'POST',
            '/api/records/{type}',
            ['values' => ['subject' => 'Wilting', 'customer' => $customer, 'priority' => 'urgent', 'status' => 'open', 'owner' => 9]],
            ['type' => 'ticket'],
        )->json();
        $this->told(
            'PATCH',
            '/api/records/{type}/{id}',
            ['version' => 1, 'values' => ['hours' => 1.5]],
            ['type' => 'ticket', 'id' => $ticket['record']['id']],
        );
        $place = ['type' => 'ticket', 'id' => $ticket['record']['id'], 'field' => 'status', 'number' => $ticket['entry']];
        foreach (['/api/schema', '/api/session', '/api/people', '/api/company', '/api/today', '/api/today/team', '/api/today/rules',
            '/api/records/{type}',
            '/api/records/{type}/{id}', '/api/records/{type}/{id}/account', '/api/records/{type}/counts/{field}',
            '/api/tasks', '/api/ledger', '/api/ledger/{number}', '/api/ledger/{number}/answers', '/api/rules', '/api/tokens'] as $path) {
            $this->told('GET', $path, [], $place);
        }
        $this->told('GET', '/api/ledger/{number}', [], ['number' => $ticket['fired'][0]['entry']]);
        foreach (['/api/rules/{id}', '/api/rules/{id}/pages', '/api/rules/{id}/file', '/api/rules/{id}/matching'] as $path) {
            $this->told('GET', $path, [], ['id' => $rule]);
        }
        $this->told('GET', '/api/rules/{id}', [], ['id' => $draft['id']]);
        $found = $this->as('ines.okafor', 'GET', 'find?text=brine')->assertOk();
        $this->fits($found, ['$ref' => '#/components/schemas/FoundAllResource'], 'what is found');
        self::assertSame('Brine & Barrow Hotel', $found->json('records.0.title'));
        $this->tried['get /api/find'] = true;
        $task = $this->as('ines.okafor', 'GET', 'tasks?whose=all')->json('tasks.0.id');
        $this->told('GET', '/api/tasks/{id}', [], ['id' => $task]);
        $this->told('GET', '/api/records/{type}/{id}/tasks', [], $place);
        $this->told('GET', '/api/records/{type}/{id}/stages/ahead', [], $place);
        $double = $this->customer('Brine and Barrow');
        $this->told('POST', '/api/records/{type}/{id}/merge', [
            'version' => DB::table('records_customer')->where('id', $customer)->value('version'), 'other' => $double['id'],
            'otherVersion' => $double['version'],
        ], ['type' => 'customer', 'id' => $customer]);
        $this->as('ines.okafor', 'GET', "records/customer/{$customer}/card")->assertOk()
            ->assertHeader('Content-Type', 'text/vcard; charset=utf-8');
        $this->tried['get /api/records/{type}/{id}/card'] = true;
        $this->told('POST', '/api/tasks/calendar', [
            'text' => "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VTODO\r\nSUMMARY:x\r\nEND:VTODO\r\nEND:VCALENDAR\r\n", 'onlyRead' => true,
        ]);
        $this->told('PUT', '/api/language', ['language' => 'en']);
        $this->told('PUT', '/api/preferences', ['scheme' => 'dark', 'contrast' => null, 'toured' => true]);
        $this->told('GET', '/api/waiting');
        $this->told('GET', '/api/openapi.json');
        $this->told('GET', '/api/notices/ways');
        $this->told('PUT', '/api/notices/ways', ['mention' => 'letter']);
        $this->told(
            'POST',
            '/api/records/{type}/several',
            [
                'records' => [
                    ['values' => ['name' => 'By the dozen']], ['id' => 999999, 'version' => 1, 'values' => []],
                    ['id' => $customer, 'version' => 1, 'values' => ['plan' => 'castle']],
                ],
            ],
            ['type' => 'customer'],
        );
        $this->told('POST', '/api/tasks',
            ['title' => 'Call', 'recordType' => 'ticket', 'recordId' => $place['id'], 'dueAt' => '2026-12-01T09:00:00Z']);
        $this->told('POST', '/api/tasks/{id}/complete', ['outcome' => 'They are happy'], ['id' => $task]);
        $this->told('POST', '/api/tasks/{id}/reopen', [], ['id' => $task]);
        $this->told(
            'POST',
            '/api/records/{type}/filter',
            ['filter' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status']]]],
            ['type' => 'ticket'],
        );
        $this->told('POST', '/api/records/{type}/filter/text', ['text' => 'status is open'], ['type' => 'ticket']);
        $this->told('POST', '/api/rules/read', ['file' => ['on' => 'ticket']]);
        $this->told('POST', '/api/rules/import', ['text' => (string) $this->as('ines.okafor', 'GET', "rules/{$rule}/file")->getContent()]);
        $this->told(
            'PUT',
            '/api/rules/{id}/draft',
            ['version' => 1, 'file' => $this->demoFile('030-waiting-since')],
            ['id' => $draft['id']],
        );
        $this->told('POST', '/api/rules/{id}/publish', ['version' => 2], ['id' => $draft['id']]);
        $this->told('POST', '/api/rules/{id}/status', ['status' => 'paused'], ['id' => $rule]);
        $this->told('DELETE', '/api/rules/{id}/draft', [], ['id' => $rule]);
        $this->told('PATCH', '/api/company', ['fallbackPersonId' => null]);
        $this->lists($ticket['record']['id']);
        $this->beside($ticket['record'], $rule);
        $this->kept();
        $this->evidence($ticket);
        $this->time($ticket['record'], $task);
        $token = $this->told('POST', '/api/tokens', ['name' => 'a script', 'password' => 'larkmoss', 'scope' => 'reading'])->json('id');
        $this->told('DELETE', '/api/tokens/{id}', [], ['id' => $token]);

        $described = [];
        foreach ($this->document['paths'] as $path => $operations) {
            foreach (array_keys($operations) as $method) {
                $described["{$method} {$path}"] = true;
                self::assertNotSame('', $operations[$method]['description'] ?? '', "{$method} {$path} says what it does");
            }
        }
        // Signing in and out want a browser's session; AccessTest and the journeys do both.
        unset($described['post /api/session'], $described['delete /api/session']);
        self::assertSame([], array_keys(array_diff_key($described, $this->tried)), 'Every operation has to be tried.');
    }

    /** Views, work on many records, and imports. */
    private function lists(int $ticket): void
    {
        Queue::fake();
        $type = ['type' => 'ticket'];
        $this->fits($this->as('ines.okafor', 'GET', 'records/ticket/groups?by=status&sums=cost')->assertOk(), [
            'type' => 'array', 'items' => ['$ref' => '#/components/schemas/GroupResource'],
        ], 'groups');
        $body = ['name' => 'Mine', 'shared' => 'nobody', 'definition' => ['columns' => ['due', 'customer.plan'], 'filter' => null]];
        $view = $this->told('POST', '/api/records/{type}/views', $body, $type)->json('id');
        $this->told('GET', '/api/records/{type}/views', [], $type);
        $this->told('PUT', '/api/views/{id}', ['version' => 1] + $body, ['id' => $view]);
        $this->told('DELETE', '/api/views/{id}', [], ['id' => $view]);
        $change = ['recordType' => 'ticket', 'records' => [$ticket], 'values' => ['topic' => 'watering']];
        $this->told('POST', '/api/bulk/preview', $change);
        $job = ['id' => $this->told('POST', '/api/bulk', $change)->json('id')];
        $this->told('GET', '/api/bulk');
        $this->told('POST', '/api/bulk/{id}/stop', [], $job);
        $this->told('POST', '/api/bulk/{id}/go-on', [], $job);
        $this->app->make(BulkWorker::class)->work(5.0);
        $this->told('GET', '/api/bulk/{id}', [], $job);
        $this->told('POST', '/api/bulk/{id}/undo', [], $job);
        $this->app->make(BulkWorker::class)->work(5.0);
        $import = ['id' => $this->told('POST', '/api/imports', ['recordType' => 'customer', 'name' => 'a.csv', 'bytes' => 20])
            ->json('job.id')];
        $this->actingAs($this->person('ines.okafor'), 'sanctum')->call('PUT', "/api/imports/{$import['id']}/pieces/0", server: [
            'CONTENT_TYPE' => 'application/octet-stream', 'HTTP_ACCEPT' => 'application/json',
        ], content: "name,plan\nOne,basic\nTwo,castle\n")->assertNoContent();
        $this->told('POST', '/api/imports/{id}/read', [], $import);
        $this->told('POST', '/api/imports/{id}/try', ['mapping' => ['0' => 'name', '1' => 'plan'], 'mode' => 'create'], $import);
        $this->app->make(BulkWorker::class)->work(5.0);
        $this->told('POST', '/api/imports/{id}/start', ['answered' => false], $import);
        $this->app->make(BulkWorker::class)->work(5.0);
        $this->told('GET', '/api/imports/{id}', [], $import);
        self::assertStringContainsString('castle', $this->as('ines.okafor', 'GET', "imports/{$import['id']}/report")->streamedContent());
        // These have a query, a body or an answer of their own, and were tried above.
        $this->tried += [
            'get /api/records/{type}/groups' => true, 'put /api/imports/{id}/pieces/{number}' => true,
            'get /api/imports/{id}/report' => true,
        ];
    }

    /** @param  array<string, mixed>  $ticket */
    private function beside(array $ticket, int $rule): void
    {
        $here = ['type' => 'ticket', 'id' => $ticket['id']];
        $byHand = $this->inForce(['name' => 'By hand', 'on' => 'ticket', 'when' => ['kind' => 'by_hand'],
            'fires' => ['kind' => 'once_per_record'], 'lines' => [
                [
                    'kind' => 'send_message', 'to' => [['kind' => 'person', 'person' => ['kind' => 'doer']]], 'channel' => 'app',
                    'subject' => 'Note', 'body' => '<p>Hello</p>',
                ],
            ]]);
        $run = $this->told(
            'POST',
            '/api/rules/{id}/run',
            ['recordType' => 'ticket', 'records' => [$ticket['id']]],
            ['id' => $byHand],
        )->json('id');
        $this->told('GET', '/api/runs/{id}', [], ['id' => $run]);
        $this->told('GET', '/api/records/{type}/{id}/beside', [], $here);
        $this->told('POST', '/api/records/{type}/{id}/comments', ['text' => 'A remark'], $here);
        $this->told('POST', '/api/records/{type}/{id}/follow', ['follows' => true], $here);
        $this->told('POST', '/api/records/{type}/{id}/guards/{number}', ['why' => 'once more'], $here + ['number' => $byHand]);
        $upload = $this->actingAs($this->person('ines.okafor'), 'sanctum')->post(
            "/api/records/ticket/{$ticket['id']}/files",
            ['file' => UploadedFile::fake()->createWithContent('a.txt', 'text')],
            ['Accept' => 'application/json'],
        )->assertCreated();
        $this->fits($upload, ['$ref' => '#/components/schemas/EntryResource'], 'a file');
        $file = $this->as('ines.okafor', 'GET', "records/ticket/{$ticket['id']}/beside")->json('files.0.id');
        self::assertSame('text', $this->as('ines.okafor', 'GET', "files/{$file}")->assertOk()->getContent());
        $this->as('ines.okafor', 'GET', "files/{$file}/picture")->assertNotFound();
        $png = (string) base64_decode(
            'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', true,
        );
        $this->actingAs($this->person('ines.okafor'), 'sanctum')->post("/api/records/ticket/{$ticket['id']}/files", [
            'file' => UploadedFile::fake()->createWithContent('leaf.png', $png),
        ], ['Accept' => 'application/json'])->assertCreated();
        $picture = max(array_column($this->as('ines.okafor', 'GET', "records/ticket/{$ticket['id']}/beside")->json('files'), 'id'));
        $shown = $this->as('ines.okafor', 'GET', "files/{$picture}/picture")->assertOk();
        self::assertSame([$png, 'image/png'], [$shown->getContent(), $shown->headers->get('Content-Type')]);
        self::assertSame("default-src 'none'; sandbox", $shown->headers->get('Content-Security-Policy'), 'it does nothing by itself');
        $this->told('GET', '/api/notes');
        $this->told('GET', '/api/notices');
        $this->told('POST', '/api/notices/seen');
        $message = $this->told('GET', '/api/records/{type}/{id}/messages', [], $here)->json('0.id');
        $this->told('GET', '/api/messages/{id}', [], ['id' => $message]);
        $this->told(
            'POST',
            '/api/messages/preview',
            [
                'on' => 'ticket', 'record' => $ticket['id'],
                'line' => ['to' => [['kind' => 'address', 'address' => 'a@x.example']], 'subject' => 'S', 'body' => '<p>B</p>'],
            ],
        );
        DB::table('messages')->where('id', $message)->update(['status' => 'failed']);
        $this->told('GET', '/api/messages');
        $this->told('POST', '/api/messages/{id}/again', [], ['id' => $message]);
        $this->told('POST', '/api/rules/{id}/either-or', ['set' => 'one of'], ['id' => $rule]);
        $this->told('POST', '/api/rules/{id}/copy', ['on' => 'customer'], ['id' => $rule]);
        $this->told(
            'POST',
            '/api/rules/order',
            [
                'recordType' => 'ticket',
                'rules' => array_column(
                    array_filter($this->as('ines.okafor', 'GET', 'rules')->json(), static fn (array $one): bool => $one['on'] === 'ticket'),
                    'id',
                ),
            ],
        );
        $page = ['lines' => []] + $this->demoFile('010-urgent-ticket');
        $this->told('POST', '/api/offers', ['file' => $page, 'at' => '/lines/0/to', 'by' => 'choose']);
        $this->told('GET', '/api/ladders/offers');
        $version = $this->as('ines.okafor', 'GET', "records/ticket/{$ticket['id']}")->json('version');
        $deleted = $this->as('ines.okafor', 'DELETE', "records/ticket/{$ticket['id']}?version={$version}")->assertOk();
        $this->fits($deleted, ['$ref' => '#/components/schemas/SavedResource'], 'a deleted record');
        self::assertSame([$ticket['id']], array_column($this->told('GET', '/api/records/{type}/bin', [], $here)->json('records'), 'id'));
        $this->told('POST', '/api/records/{type}/{id}/restore', [], $here);
        self::assertSame([], $this->as('ines.okafor', 'GET', 'records/ticket/bin')->assertOk()->json('records'));
        // Files and deletions have a form or a query of their own, and were tried above.
        $this->tried += [
            'post /api/records/{type}/{id}/files' => true, 'get /api/files/{id}' => true, 'get /api/files/{id}/picture' => true,
            'delete /api/records/{type}/{id}' => true,
        ];
    }

    /** @param  array<string, mixed>  $ticket */
    private function time(array $ticket, int $task): void
    {
        config(['ledger.clock_may_turn' => true]);
        $calendar = [
            'name' => 'Office', 'timeZone' => 'Europe/Berlin', 'hours' => ['1' => [['08:00', '16:00']]],
            'holidays' => ['2026-12-25' => 'Winter'], 'company' => false, 'teams' => ['Finance'], 'people' => [1],
        ];
        $kept = $this->told('POST', '/api/calendars', $calendar)->json();
        $this->told('GET', '/api/calendars');
        $this->told('PUT', '/api/calendars/{id}', ['version' => 1, 'teams' => [], 'people' => []] + $calendar, $kept);
        $this->told('DELETE', '/api/calendars/{id}', [], $kept);
        $this->told(
            'POST',
            '/api/calendars/holidays',
            ['text' => "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20261224\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"],
        );
        $rungs = [['after' => ['amount' => 1, 'unit' => 'day'], 'to' => ['kind' => 'owner'], 'do' => ['tell']]];
        $ladder = $this->told('POST', '/api/ladders', ['name' => 'Ladder', 'rungs' => $rungs])->json();
        $this->told('GET', '/api/ladders');
        $this->told('PUT', '/api/ladders/{id}', ['version' => 1, 'name' => 'Ladder', 'rungs' => $rungs], $ladder);
        $this->told('DELETE', '/api/ladders/{id}', [], $ladder);
        $rule = $this->inForce(['name' => 'Later', 'on' => 'ticket', 'when' => ['kind' => 'by_hand'], 'fires' => ['kind' => 'every_time'],
            'lines' => array_map(
                static fn (int $days): array => [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'x',
                    'at' => ['kind' => 'after', 'amount' => $days, 'unit' => 'day'],
                ], [1, 2, 3],
            )]);
        $this->told('GET', '/api/rules/{id}/moving', [], ['id' => $rule]);
        $this->as('ines.okafor', 'POST', "rules/{$rule}/run", ['recordType' => 'ticket', 'records' => [$ticket['id']]])->assertCreated();
        $this->told('GET', '/api/records/{type}/{id}/account', [], ['type' => 'ticket', 'id' => $ticket['id']]);
        $this->told('GET', '/api/records/{type}/{id}/stages', [], ['type' => 'ticket', 'id' => $ticket['id']]);
        $this->told('GET', '/api/lines', ['date' => '2026-11-25']);
        $lines = DB::table('scheduled_lines')->where('rule_id', $rule)->pluck('id')->all();
        foreach (['hold' => 0, 'resume' => 0, 'strike' => 1, 'now' => 2] as $act => $line) {
            $this->told('POST', "/api/lines/{id}/{$act}", ['why' => 'to try it'], ['id' => $lines[$line]]);
        }
        $this->told('GET', '/api/lines/set-aside');
        DB::table('scheduled_lines')->where('id', $lines[0])->update(['status' => 'failed']);
        $this->told('POST', '/api/lines/{id}/again', [], ['id' => $lines[0]]);
        $this->told('PATCH', '/api/tasks', ['ids' => [$task], 'dueAt' => '2026-12-01T09:00:00Z', 'assigneeId' => 1]);
        $this->told('GET', '/api/clock');
        $this->told('POST', '/api/clock/turn', ['by' => 'hour']);
        $this->told('POST', '/api/feed');
        $this->told('DELETE', '/api/feed');
        $this->signOffs();
        DB::table('messages')->orderBy('id')->limit(1)->update(['key' => 'abc']);
        $this->app->make(MailRoom::class)->takeMail(
            "Message-ID: <abc@x.example>\r\nFrom: a@x.example\r\nTo: b@x.example\r\nSubject: Hello\r\n\r\nText",
        );
        $this->told('POST', '/api/mail-room/{id}/answer', ['text' => 'Thank you'], ['id' => DB::table('mail_room')->max('id')]);
    }

    private function signOffs(): void
    {
        $this->inForce(SignOffTest::file());
        $customer = DB::table('records_customer')->value('id');
        $this->created('quote', [
            'subject' => 'Ferns', 'stage' => 'draft', 'amount' => '1000', 'discount' => '20', 'customer' => $customer,
            'owner' => 'jonas.pike',
        ], 'jonas.pike');
        $id = DB::table('sign_offs')->value('id');
        $this->told('GET', '/api/sign-offs');
        self::assertSame($id, $this->as('ines.okafor', 'GET', 'sign-offs?box=all')->json('signOffs.0.id'));
        $this->told('GET', '/api/sign-offs/{id}', [], ['id' => $id]);
        $this->told('POST', '/api/sign-offs/answers', ['ids' => [$id], 'answer' => 'yes']);
        $this->told('POST', '/api/sign-offs/{id}/withdraw', [], ['id' => $id]);
        $this->signOffsInFull();
        $this->people();
        $this->slips();
        $this->calls();
    }

    private function signOffsInFull(): void
    {
        $ines = [
            'who' => ['kind' => 'people', 'people' => [['kind' => 'named', 'handle' => 'ines.okafor']]],
            'within' => ['amount' => 2, 'unit' => 'day'],
        ];
        $route = $this->told('POST', '/api/routes', ['recordType' => 'ticket', 'name' => 'Route', 'steps' => [$ines]])->json();
        $this->told('GET', '/api/routes');
        $this->inForce([
            'name' => 'Asked', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'sign_off', 'hold' => 'locked', 'steps' => [['route' => 'Route']]]],
        ]);
        $ticket = $this->ticket(['subject' => 'Wants a sign-off']);
        $here = ['id' => DB::table('sign_offs')->max('id')];
        $this->told('GET', '/api/records/{type}/{id}/sign-offs', [], ['type' => 'ticket', 'id' => $ticket['record']['id']]);
        $this->told('POST', '/api/sign-offs/{id}/ask', ['question' => 'Why?'], $here);
        $this->told('POST', '/api/sign-offs/{id}/answer-back', ['place' => 0, 'answer' => 'So'], $here);
        $this->told('POST', '/api/sign-offs/{id}/unlock', ['reason' => 'A mistake'], $here);
        $this->told('PUT', '/api/routes/{id}', ['version' => 1, 'name' => 'Route', 'steps' => [$ines, $ines]], $route);
        self::assertCount(1, $this->told('GET', '/api/routes/{id}/running', [], $route)->json());
        $this->told('POST', '/api/routes/{id}/move', ['ids' => [$here['id']]], $route);
        $this->told('POST', '/api/sign-offs/{id}/hand-over', ['to' => 'ulla.verne'], $here);
        $seat = SignOffSeat::query()->where('state', 'waiting')->latest('id')->firstOrFail();
        $token = ['token' => SignOffLink::token($seat->id, 1, new \DateTimeImmutable)];
        $this->told('GET', '/api/decide/{token}', [], $token);
        $this->told('POST', '/api/decide/{token}', ['answer' => 'yes'], $token);
        $spare = $this->told('POST', '/api/routes', ['recordType' => 'ticket', 'name' => 'Spare', 'steps' => [$ines]])->json();
        $this->told('DELETE', '/api/routes/{id}', [], $spare);
    }

    private function slips(): void
    {
        $form = ['subject' => 'A question', 'body' => '<p>Hello</p>', 'asks' => [['kind' => 'tick', 'label' => 'Is it well?']]];
        $kept = $this->told('POST', '/api/slip-forms', $form + ['recordType' => 'ticket', 'name' => 'Well?'])->json();
        $this->told('GET', '/api/slip-forms');
        $this->told('PUT', '/api/slip-forms/{id}', $form + ['version' => 1, 'name' => 'Well?'], $kept);
        $this->told('GET', '/api/slip-forms/{id}/versions', [], $kept);
        $this->told('POST', '/api/slip-forms/preview', $form + ['recordType' => 'ticket']);
        $this->inForce([
            'name' => 'Well?', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'slip', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'slip' => 'Well?',
                'within' => ['amount' => 2, 'unit' => 'day'],
                'then' => ['kind' => 'team', 'team' => 'Finance', 'field' => 'owner']]],
        ]);
        $ticket = $this->ticket(['subject' => 'Is asked'])['record'];
        $here = ['id' => DB::table('slips')->max('id')];
        $this->told('GET', '/api/slips');
        self::assertSame($here['id'], $this->as('ines.okafor', 'GET', 'slips?box=waiting')->json('slips.0.id'));
        $this->told('GET', '/api/records/{type}/{id}/slips', [], ['type' => 'ticket', 'id' => $ticket['id']]);
        foreach (['pass-on', 'again', 'withdraw'] as $act) {
            $this->told('POST', "/api/slips/{id}/{$act}", [], $here);
        }
        $spare = $this->told('POST', '/api/slip-forms', $form + ['recordType' => 'ticket', 'name' => 'Spare'])->json();
        $this->told('DELETE', '/api/slip-forms/{id}', [], $spare);
    }

    private function calls(): void
    {
        $books = [
            'name' => 'Books', 'url' => 'https://books.example/in', 'method' => 'POST',
            'headers' => [['name' => 'X-From', 'value' => 'us']],
            'timeout' => 5, 'tries' => 3, 'atOnce' => 2, 'perMinute' => 60, 'mayBeInside' => false,
        ];
        $endpoint = $this->told('POST', '/api/endpoints', $books)->json();
        $this->told('GET', '/api/endpoints');
        $this->told('PUT', '/api/endpoints/{id}', ['version' => 1] + $books, $endpoint);
        $this->inForce([
            'name' => 'Into the books', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'call', 'endpoint' => 'Books', 'send' => [['path' => 'subject', 'name' => 'subject']]]],
        ]);
        $this->ticket(['subject' => 'Is told']);
        $this->told('GET', '/api/calls');
        $call = ['id' => DB::table('calls')->max('id')];
        DB::table('calls')->update(['status' => 'failed']);
        $this->told('POST', '/api/calls/{id}/again', ['payload' => '{"subject":"mended"}'], $call);
        $this->told('POST', '/api/calls/again', ['endpoint' => 'Books']);
        $other = $this->told('POST', '/api/endpoints', ['name' => 'Other'] + $books)->json();
        $this->told('DELETE', '/api/endpoints/{id}', [], $other);
        $this->hooks();
        // The accounting system is asked in CallTest.
        $this->tried += ['get /api/in-step' => true, 'post /api/in-step/mend' => true];
    }

    private function hooks(): void
    {
        $form = [
            'name' => 'Form', 'recordType' => 'partner', 'takes' => [['path' => 'name', 'field' => 'name']],
            'starts' => [['field' => 'visits_done', 'value' => '0']], 'knownBy' => 'name', 'mayCreate' => true, 'isOpen' => true,
        ];
        $hook = $this->told('POST', '/api/hooks', $form)->json();
        $this->told('GET', '/api/hooks');
        $this->told('PUT', '/api/hooks/{id}', ['version' => 1] + $form, $hook);
        $this->told('POST', '/api/hooks/{id}/try', ['text' => '{"name": "Fern Crew"}'], $hook);
        $arrival = HookArrival::query()->create([
            'hook_id' => $hook['id'], 'key' => 'x', 'at' => $this->app->make(HouseClock::class)->now(), 'outcome' => HookOutcome::Refused,
            'record_type' => 'partner', 'raw' => '{}', 'trouble' => 'Name is missing',
        ]);
        $this->told('GET', '/api/hooks/{id}/arrivals', [], $hook);
        $this->told('POST', '/api/hook-arrivals/{id}/again', ['text' => '{"name": "Fern Crew"}'], ['id' => $arrival->id]);
        $this->told('DELETE', '/api/hooks/{id}', [], $hook);
    }

    private function people(): void
    {
        $person = ['id' => $this->person('emil.crane')->id];
        $this->told('PATCH', '/api/people/{id}', ['limit' => '900', 'limits' => ['quote' => '10.5'], 'deputyId' => 'zora.linden'], $person);
        $absence = $this->told('POST', '/api/people/{id}/absences', ['from' => '2027-01-04', 'until' => '2027-01-09'], $person)->json();
        $this->told('GET', '/api/people');
        $this->told('DELETE', '/api/absences/{id}', [], ['id' => $absence['absences'][0]['id']]);
        $kim = ['name' => 'Kim Noor', 'email' => 'kim@larkmoss.example', 'role' => 'member'];
        $invited = $this->told('POST', '/api/people', $kim)->json();
        $this->told('POST', '/api/people/{id}/invite', [], $invited);
        $list = ['text' => "name;email\nAda Reed;ada@reed.example"];
        $this->told('POST', '/api/people/list/read', $list);
        $this->told('POST', '/api/people/list', $list);
        $this->told('GET', '/api/people/{id}/leaving', [], $invited);
        $this->told('POST', '/api/people/{id}/leave', ['to' => 'lena.abara'], $invited);
        $this->told('POST', '/api/people/{id}/return', [], $invited);
        $this->doors($invited['id']);
        $this->types();
        $this->roles();
    }

    private function roles(): void
    {
        $file = RightsWalkTest::DESK;
        $this->told('GET', '/api/roles');
        $role = $this->told('POST', '/api/roles', ['file' => $file])->json('name');
        $this->told('POST', '/api/roles/{role}/difference', ['file' => ['label' => 'Bench'] + $file], ['role' => $role]);
        $this->told('PUT', '/api/roles/{role}', ['version' => 1, 'file' => ['label' => 'Bench'] + $file], ['role' => $role]);
        $lena = $this->person('lena.abara')->id;
        $this->told('DELETE', '/api/people/{id}/sign-ins', [], ['id' => $lena]);
        $this->told('GET', '/api/people/{id}/may', [], ['id' => $lena]);
        $ticket = (int) DB::table('records_ticket')->value('id');
        $this->told('GET', '/api/people/{id}/may/{type}/{number}', [], ['id' => $lena, 'type' => 'ticket', 'number' => $ticket]);
        $this->told('DELETE', '/api/roles/{role}', [], ['role' => $role]);
        // Files; SetupTest, SignOffTest and RightsPropertyTest look into them.
        foreach (['get /api/records/{type}/file', 'get /api/ledger/file', 'get /api/sign-offs/file', 'get /api/setup',
            'post /api/setup/plan', 'post /api/setup/apply'] as $file) {
            $this->tried[$file] = true;
        }
    }

    /** Tables are made outside of any transaction; TypeTest, in a database of its own, makes them. */
    private function types(): void
    {
        $place = ['type' => 'ticket', 'field' => 'notes'];
        $version = (int) DB::table('record_types')->where('name', 'ticket')->value('version');
        $this->told('PATCH', '/api/types/{type}', ['version' => $version, 'plural' => 'Tickets'], $place);
        $this->told('PATCH', '/api/types/{type}/fields/{field}', ['version' => $version + 1, 'help' => 'Whatever helps'], $place);
        $this->told('GET', '/api/types/{type}/fields/{field}/uses', [], ['type' => 'ticket', 'field' => 'subject']);
        $this->told('DELETE', '/api/types/{type}/fields/{field}', [], $place);
        $this->told('POST', '/api/types/{type}/fields/{field}/back', [], $place);
        $this->tried += ['post /api/types' => true, 'post /api/types/{type}/fields' => true];
    }

    private function doors(int $invited): void
    {
        $origin = ['Origin' => config('app.url')];
        $own = ['#/components/schemas/Me' => fn (): TestResponse => $this->postJson(
            '/api/welcome/'.PersonLinks::make(LinkKind::Invite, $invited),
            ['password' => 'four ferns by the door'],
            $origin,
        ), '#/components/schemas/WelcomeResource' => fn (): TestResponse => $this->getJson(
            '/api/welcome/'.PersonLinks::make(LinkKind::Reset, $invited),
        ), '#/components/schemas/DoorResource' => fn (): TestResponse => $this->getJson('/api/door')];
        foreach ($own as $shape => $ask) {
            $this->forget();
            $this->fits($ask()->assertOk(), ['$ref' => $shape], $shape);
        }
        $begun = $this->told('POST', '/api/second-factor/begin')->json('secret');
        $code = SecondFactor::code($begun, intdiv(time(), 30));
        $this->told('POST', '/api/second-factor', ['secret' => $begun, 'code' => $code, 'password' => 'larkmoss']);
        $this->told('DELETE', '/api/second-factor', ['password' => 'larkmoss']);
        $this->told('DELETE', '/api/people/{id}/second-factor', ['password' => 'larkmoss'], ['id' => $this->person('emil.crane')->id]);
        $this->told('PUT', '/api/password', ['current' => 'larkmoss', 'password' => 'four ferns by the door']);
        $this->person('ines.okafor')->update(['password' => 'larkmoss']);
        DB::table('sessions')->insert([
            'id' => 'x', 'user_id' => $this->person('ines.okafor')->id, 'payload' => '', 'last_activity' => time(),
        ]);
        $mark = $this->told('GET', '/api/sign-ins')->json('0.mark');
        $this->told('DELETE', '/api/sign-ins/{mark}', [], ['mark' => $mark]);
        $this->told('POST', '/api/password/forgotten', ['email' => 'nobody@larkmoss.example']);
        // These take a secret in their address; WelcomeTest goes through each of them.
        $this->tried += [
            'get /api/welcome/{token}' => true, 'post /api/welcome/{token}' => true, 'post /api/welcome/{token}/company' => true,
            'get /api/door' => true,
        ];
    }

    /** @param  array<string, mixed>  $saved */
    private function evidence(array $saved): void
    {
        $file = [
            'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'x',
                    'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
                ],
                ['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'y'],
            ],
            'until' => ['kind' => 'happened', 'event' => 'reply'],
        ] + $this->demoFile('010-urgent-ticket');
        $rule = $this->inForce($file);
        $id = $saved['record']['id'];
        $here = ['type' => 'ticket', 'id' => $id, 'field' => 'review'];
        $this->told('POST', '/api/remarks', ['file' => $file, 'rule' => $rule]);
        $this->told(
            'POST',
            '/api/rehearse',
            [
                'file' => $file, 'rule' => $rule, 'record' => ['id' => $id],
                'whatIfs' => [['kind' => 'word', 'event' => 'reply', 'at' => self::LATER, 'text' => 'Hello']],
            ],
        );
        $this->told('POST', '/api/rehearse', ['file' => $file, 'record' => ['pick' => 'made_up'], 'others' => false]);
        $this->told('GET', '/api/schema/{type}/fields/{field}/rules', [], $here);
        $this->told('GET', '/api/records/{type}/{id}/why', [], $here);
        $then = $this->as('ines.okafor', 'GET', "records/ticket/{$id}/then?entry={$saved['entry']}")->assertOk();
        $this->fits($then, ['$ref' => '#/components/schemas/RecordResource'], 'a record then');
        $proof = $this->told(
            'POST',
            '/api/rules/{id}/proofs',
            ['name' => 'It reminds', 'file' => $file, 'record' => ['id' => $id]],
            ['id' => $rule],
        )->json('0.id');
        $this->told('GET', '/api/rules/{id}/proofs', [], ['id' => $rule]);
        $this->told('POST', '/api/rules/{id}/proofs/try', ['file' => $file], ['id' => $rule]);
        $this->told('POST', '/api/rules/{id}/proofs/propose', ['file' => $file], ['id' => $rule]);
        $this->told('POST', '/api/proofs/{id}/accept', [], ['id' => $proof]);
        $this->told('DELETE', '/api/proofs/{id}', [], ['id' => $proof]);
        $this->told('POST', '/api/reversals/preview', ['entries' => [$saved['entry']]]);
        $this->told('POST', '/api/reversals', ['entries' => [$saved['entry']]]);
        $difference = $this->as('ines.okafor', 'GET', "rules/{$rule}/difference?from=1&to=1")->assertOk();
        $this->fits($difference, ['type' => 'array', 'items' => ['$ref' => '#/components/schemas/DifferenceLine']], 'a difference');
        $this->told(
            'POST',
            '/api/rules/{id}/pages/{number}/back',
            ['version' => $this->as('ines.okafor', 'GET', "rules/{$rule}")->json('draftVersion')],
            ['id' => $rule, 'number' => 1],
        );
        $text = $this->told('POST', '/api/text/print', ['file' => $file])->json('text');
        $this->told('POST', '/api/text/rule', ['text' => $text]);
        $this->told('POST', '/api/text/rule', ['text' => 'Nothing that is understood']);
        $this->told('POST', '/api/text/line', ['text' => 'remind', 'on' => 'ticket']);
        $this->told('POST', '/api/text/sentence', ['text' => 'when a ticket is closed, comment "Done"']);
        $this->told('POST', '/api/text/line', ['text' => 'remind the owner "Look" after 3 days at 5', 'on' => 'ticket']);
        // These want a query, or answer line by line; LookBackTest reads each line.
        $this->tried += [
            'get /api/records/{type}/{id}/then' => true, 'get /api/rules/{id}/difference' => true, 'post /api/look-back' => true,
        ];
    }

    private function kept(): void
    {
        $letter = $this->told(
            'POST',
            '/api/letters',
            ['recordType' => 'ticket', 'name' => 'Received', 'subject' => 'We have it', 'body' => '<p>Thank you.</p>'],
        )->json();
        $this->told('GET', '/api/letters');
        $this->told(
            'PUT',
            '/api/letters/{id}',
            ['version' => 1, 'name' => 'Received', 'subject' => 'We have it', 'body' => '<p>Thanks.</p>'],
            $letter,
        );
        $this->told('GET', '/api/letters/{id}/versions', [], $letter);
        $this->told('DELETE', '/api/letters/{id}', [], $letter);
        $condition = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'kind', 'value' => 'hotel']]];
        $named = $this->told(
            'POST',
            '/api/named-conditions',
            ['recordType' => 'customer', 'name' => 'Hotels', 'file' => $condition],
        )->json();
        $this->told('GET', '/api/named-conditions');
        $this->told('PUT', '/api/named-conditions/{id}', ['version' => 1, 'name' => 'Hotels', 'file' => $condition], $named);
        $this->told('DELETE', '/api/named-conditions/{id}', [], $named);
        $this->app->make(MailRoom::class)->takeMail(
            "Message-ID: <1@x.example>\r\nFrom: a@x.example\r\nTo: b@x.example\r\nSubject: Hello\r\n\r\nText",
        );
        $id = $this->told('GET', '/api/mail-room')->json('letters.0.id');
        $this->told('GET', '/api/mail-room/{id}', [], ['id' => $id]);
        self::assertStringContainsString(
            'Subject: Hello',
            (string) $this->as('ines.okafor', 'GET', "mail-room/{$id}/eml")->assertOk()->getContent(),
        );
        $this->tried['get /api/mail-room/{id}/eml'] = true;
    }

    public function test_refusals_are_as_described(): void
    {
        foreach ([['GET', 'records/boat'], ['POST', 'records/ticket', ['values' => []]], ['GET', 'ledger/0'], ['POST', 'rules', []],
            ['POST', 'rules/import', ['text' => '{']], ['GET', 'nowhere']] as $request) {
            $answer = $this->as('ines.okafor', ...$request);
            $this->fits(
                $answer,
                $this->document['components']['responses']['Problem']['content']['application/problem+json']['schema'],
                implode(' ', array_slice($request, 0, 2)),
            );
        }
        $this->fits(
            $this->as('odile.march', 'POST', 'rules', []),
            ['$ref' => '#/components/schemas/ProblemDocument'],
            'a role that may not',
        );
    }

    /**
     * @param  array<string, mixed>  $body
     * @param  array<string, mixed>  $place  what stands in the path
     */
    private function told(string $method, string $path, array $body = [], array $place = []): TestResponse
    {
        $filled = (string) preg_replace_callback('/\{(\w+)\}/', static fn (array $name): string => (string) $place[$name[1]], $path);
        $answer = $this->as('ines.okafor', $method, substr($filled, 5), $body);
        self::assertTrue($answer->isSuccessful(), "{$method} {$filled}: {$answer->getContent()}");
        $this->tried[strtolower($method).' '.$path] = true;
        $operation = $this->document['paths'][$path][strtolower($method)];
        $taken = $operation['requestBody']['content']['application/json']['schema'] ?? null;
        if ($taken !== null) {
            $this->fits((string) json_encode($body === [] ? new \stdClass : $body), $taken, "what {$method} {$path} took");
        }
        $responses = $operation['responses'];
        self::assertArrayHasKey((string) $answer->getStatusCode(), $responses, "{$method} {$path}");
        $content = $responses[(string) $answer->getStatusCode()]['content']['application/json'] ?? null;
        if ($content === null) {
            self::assertSame('', (string) $answer->getContent());
        } else {
            $this->fits($answer, $content['schema'], "what {$method} {$path} answered");
        }

        return $answer;
    }

    /** @param  array<string, mixed>  $schema as OpenAPI writes it */
    private function fits(TestResponse|string $given, array $schema, string $what): void
    {
        $data = json_decode(is_string($given) ? $given : (string) $given->getContent(), false, 512, JSON_THROW_ON_ERROR);
        $schema = $this->asJsonSchema($schema);
        $result = $this->validator->validate($data, (string) json_encode($schema, JSON_THROW_ON_ERROR));
        $error = $result->error();

        self::assertNull($error, $what.': '.($error === null ? '' : json_encode((new ErrorFormatter)->format($error), JSON_PRETTY_PRINT)));
    }

    /** OpenAPI 3.1 is JSON Schema, but refers to its own document. */
    private function asJsonSchema(mixed $schema): mixed
    {
        if (! is_array($schema)) {
            return $schema;
        }
        // An empty object and an empty list look alike when PHP writes them.
        $types = (array) ($schema['type'] ?? []);
        if (in_array('object', $types, true) && ! isset($schema['properties'])) {
            $schema['type'] = [...$types, 'array'];
        }
        if (is_string($schema['$ref'] ?? null) && str_starts_with($schema['$ref'], '#/')) {
            $schema['$ref'] = 'https://vividledger.example/api'.$schema['$ref'];
        }

        return array_map($this->asJsonSchema(...), $schema);
    }
}
