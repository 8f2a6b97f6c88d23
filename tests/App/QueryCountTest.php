<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Inbound\Hook;
use App\Models\Inbound\HookArrival;
use App\Models\Inbound\HookOutcome;
use App\Models\Library\StoredRoute;
use App\Store\HouseClock;
use App\Store\SignOffs\SignOffLink;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** No answer asks for each of its rows: with several times as many of everything, every GET of the API asks as often as before. */
final class QueryCountTest extends AppTestCase
{
    /** No screen needs more questions than this for one answer. */
    private const MOST = 40;

    /** Addresses that end in a file, or of which the answer grows by what was asked for, or that ask another system. */
    private const LEFT_OUT = [
        '/api/files/{id}', '/api/files/{id}/picture', '/api/mail-room/{id}', '/api/mail-room/{id}/eml', '/api/find', '/api/in-step',
        '/api/welcome/{token}',
        '/api/ledger/file', '/api/setup', '/api/imports/{id}', '/api/imports/{id}/report', '/api/bulk/{id}',
        '/api/records/{type}/groups', '/api/types/{type}/fields/{field}/uses',
    ];

    private ?int $first = null;

    private int $nth = 0;

    public function test_more_rows_ask_no_more_questions(): void
    {
        foreach (['010-urgent-ticket', '020-full-care-first', '030-waiting-since', '050-closed'] as $name) {
            $this->inForce($this->demoFile($name));
        }
        $run = $this->inForce([
            'name' => 'By hand', 'on' => 'ticket', 'when' => ['kind' => 'by_hand'], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Look at it',
                    'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
                ],
                [
                    'kind' => 'send_message', 'channel' => 'app', 'to' => [
                        ['kind' => 'person', 'person' => ['kind' => 'owner']],
                    ], 'subject' => 'Look',
                    'body' => '<p>At it</p>',
                ],
            ],
        ]);
        $this->inForce([
            'name' => 'Asked', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'sign_off', 'steps' => [[
                'who' => ['kind' => 'people', 'people' => [['kind' => 'manager', 'of' => ['kind' => 'owner']]]],
            ]]]],
        ]);
        $this->as('ines.okafor', 'POST', 'routes', ['recordType' => 'ticket', 'name' => 'Kept 0', 'steps' => [[
            'who' => ['kind' => 'team', 'team' => 'Finance'],
        ]]])->assertCreated();
        $this->inForce([
            'name' => 'Asked by a kept route', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'sign_off', 'steps' => [['route' => 'Kept 0']]]],
        ]);
        $this->as('ines.okafor', 'POST', 'endpoints', [
            'name' => 'Books', 'url' => 'https://books.example/', 'method' => 'POST', 'headers' => [], 'timeout' => 5, 'tries' => 3,
            'atOnce' => 2, 'perMinute' => 60, 'mayBeInside' => false,
        ])->assertCreated();
        $this->inForce([
            'name' => 'Asked on a slip', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'slip', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]], 'subject' => 'Well?',
                    'body' => '<p>Is it?</p>', 'asks' => [['kind' => 'tick', 'label' => 'It is']],
                ],
                ['kind' => 'call', 'endpoint' => 'Books', 'send' => [['path' => 'subject', 'name' => 'subject']]],
            ],
        ]);
        $first = $this->more($run);
        $this->more($run);
        $few = $this->counted($first);
        for ($times = 0; $times < 8; $times++) {
            $this->more($run);
        }
        $many = $this->counted($first);
        $grown = [];
        foreach ($many as $path => $count) {
            if ($count > $few[$path] || $count > self::MOST) {
                $grown[$path] = "{$few[$path]} with few, {$count} with many";
            }
        }
        self::assertSame([], $grown);
    }

    /** @return array{ticket: int, entry: int, task: int, rule: int, run: int} some of everything */
    private function more(int $rule): array
    {
        $customer = $this->customer();
        $saved = $this->ticket(['customer' => $customer['id'], 'priority' => 'urgent', 'owner' => $this->person('lena.abara')->id]);
        $ticket = $saved['record'];
        $changed = $this->change($ticket, ['status' => 'waiting'], 'lena.abara')['record'];
        $this->change($changed, ['status' => 'closed'], 'ines.okafor');
        $this->as('lena.abara', 'POST', "records/ticket/{$ticket['id']}/comments", ['text' => 'Seen'])->assertCreated();
        $this->as('lena.abara', 'POST', "records/ticket/{$ticket['id']}/follow", ['follows' => true])->assertNoContent();
        $this->kept($this->first ??= $ticket['id']);
        $runs = $this->as('ines.okafor', 'POST', "rules/{$rule}/run", ['recordType' => 'ticket', 'records' => [$ticket['id']]])->json('id');
        $this->as('ines.okafor', 'POST', 'rules', ['file' => $this->demoFile('010-urgent-ticket')])->assertCreated();

        // One more that runs on along a route which has been changed since.
        $route = StoredRoute::query()->orderBy('id')->firstOrFail();
        $this->as('ines.okafor', 'PUT', "routes/{$route->id}", [
            'version' => $route->version, 'name' => 'Kept 0', 'steps' => [
                ['who' => ['kind' => 'team', 'team' => 'Finance'], 'needed' => 1 + $this->nth % 15],
            ],
        ])->assertOk();

        return [
            'ticket' => $ticket['id'], 'entry' => $saved['entry'], 'task' => (int) DB::table('tasks')
                ->max('id'), 'rule' => $rule, 'run' => $runs,
        ];
    }

    /** One more of what the company keeps, and one more rule whose guard the first record has used. */
    private function kept(int $ticket): void
    {
        $nth = ++$this->nth;
        foreach ([
            'letters' => ['subject' => 'Look', 'body' => '<p>At it</p>', 'recordType' => 'ticket'],
            'named-conditions' => ['recordType' => 'ticket', 'file' => [
                'kind' => 'all', 'of' => [['kind' => 'over', 'field' => 'hours', 'value' => (string) $nth]],
            ]],
            'slip-forms' => [
                'recordType' => 'ticket', 'subject' => 'Look', 'body' => '<p>At it</p>', 'asks' => [['kind' => 'tick', 'label' => 'Well?']],
            ],
            'endpoints' => [
                'url' => 'https://books.example/', 'method' => 'POST', 'headers' => [], 'timeout' => 5, 'tries' => 3, 'atOnce' => 2,
                'perMinute' => 60, 'mayBeInside' => false,
            ],
            'hooks' => [
                'recordType' => 'ticket', 'takes' => [['path' => 'a', 'field' => 'subject']], 'mayCreate' => true, 'isOpen' => true,
            ],
            'ladders' => ['rungs' => [
                ['after' => ['amount' => 1, 'unit' => 'day'], 'to' => ['kind' => 'owner'], 'do' => ['tell']],
            ]],
            'routes' => ['recordType' => 'ticket', 'steps' => [['who' => ['kind' => 'team', 'team' => 'Finance']]]],
            'calendars' => [
                'timeZone' => 'Europe/Berlin', 'hours' => ['1' => [['09:00', '17:00']]], 'holidays' => [], 'company' => false,
                'teams' => [], 'people' => [],
            ],
        ] as $shelf => $file) {
            $this->as('ines.okafor', 'POST', $shelf, $file + ['name' => "Kept {$nth}"])->assertCreated();
        }
        $this->inForce([
            'name' => "Once {$nth}", 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['hours']],
            'fires' => ['kind' => 'once_per_record'], 'lines' => [['kind' => 'comment', 'text' => 'Seen']],
        ]);
        HookArrival::query()->create([
            'hook_id' => Hook::query()->min('id'), 'key' => "a{$nth}", 'at' => $this->app->make(HouseClock::class)->now(),
            'outcome' => HookOutcome::Created, 'record_type' => 'ticket', 'record_id' => DB::table('records_ticket')->max('id'),
            'raw' => '{}',
        ]);
        $this->becomes($ticket, ['hours' => (string) $nth]);
    }

    /**
     * @param  array{ticket: int, entry: int, task: int, rule: int, run: int}  $of
     * @return array<string, int> how many questions each address asks
     */
    private function counted(array $of): array
    {
        $ids = [
            'records' => $of['ticket'], 'tasks' => $of['task'], 'rules' => $of['rule'], 'runs' => $of['run'], 'ledger' => $of['entry'],
            'messages' => (int) DB::table('messages')->max('id'), 'letters' => (int) DB::table('letters')->max('id'),
            'slip-forms' => (int) DB::table('slip_forms')->max('id'), 'slips' => (int) DB::table('slips')->max('id'),
            'hooks' => (int) DB::table('hooks')->min('id'),
            'sign-offs' => (int) DB::table('sign_offs')->max('id'), 'routes' => (int) DB::table('sign_off_routes')->min('id'),
        ];
        $document = json_decode((string) file_get_contents(base_path('docs/openapi.json')), true, 512, JSON_THROW_ON_ERROR);
        $counts = [];
        foreach ($document['paths'] as $path => $operations) {
            if (! isset($operations['get']) || in_array($path, self::LEFT_OUT, true)) {
                continue;
            }
            $id = (string) ($ids[explode('/', $path)[2]] ?? 1);
            $token = SignOffLink::token((int) DB::table('sign_off_seats')->max('id'), 1, $this->app->make(HouseClock::class)->now());
            $address = strtr(str_replace('may/{type}/{number}', "may/ticket/{$of['ticket']}", $path), [
                '/api/' => '', '{type}' => 'ticket', '{id}' => $id, '{number}' => $id, '{field}' => 'status', '{token}' => $token,
            ]);
            $address .= match ($path) {
                '/api/records/{type}/{id}/then' => "?entry={$of['entry']}", '/api/lines' => '?date=2026-11-25',
                '/api/rules/{id}/difference' => '?from=1&to=1', '/api/tasks' => '?whose=all&limit=500',
                '/api/messages' => '?status=all&limit=200', '/api/sign-offs' => '?box=all&limit=500',
                '/api/slips' => '?box=all&limit=200', '/api/calls' => '?limit=200',
                default => '',
            };
            // Asked once before, so that what a process learns for good is known.
            $this->as('ines.okafor', 'GET', $address)->assertSuccessful();
            $this->forgetEverything();
            DB::flushQueryLog();
            DB::enableQueryLog();
            $this->as('ines.okafor', 'GET', $address)->assertSuccessful();
            DB::disableQueryLog();
            $counts[$path] = count(DB::getQueryLog());
        }

        return $counts;
    }
}
