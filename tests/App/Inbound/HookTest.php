<?php

declare(strict_types=1);

namespace Tests\App\Inbound;

use App\Models\Inbound\Hook;
use App\Models\Inbound\HookArrival;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use StandardWebhooks\Webhook;
use Symfony\Component\Process\Process;
use Tests\App\Support\AppTestCase;

/** Other systems post to a hook: what is signed becomes a record once, rules fire, and nothing that cannot be taken is lost. */
final class HookTest extends AppTestCase
{
    private const SETUP = [
        'name' => 'Web form', 'recordType' => 'ticket', 'takes' => [
            ['path' => 'title', 'field' => 'subject'], ['path' => 'how.urgent', 'field' => 'priority'],
            ['path' => 'order.0.hours', 'field' => 'hours'],
        ], 'starts' => [
            ['field' => 'status', 'value' => 'open'], ['field' => 'priority', 'value' => 'normal'],
        ], 'knownBy' => 'subject', 'mayCreate' => true, 'isOpen' => true,
    ];

    private string $address = '';

    private string $secret = '';

    private int $id = 0;

    /** @var array<string, mixed> */
    private array $setup = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->inForce([
            'name' => 'From outside', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'made_by', 'by' => 'hook']],
            ], 'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'It came from outside']],
        ]);
        // A ticket needs a customer, who is one of ours here.
        $this->setup = self::SETUP;
        $this->setup['starts'][] = ['field' => 'customer', 'value' => (string) $this->customer()['id']];
        $made = $this->as('ines.okafor', 'POST', 'hooks', $this->setup)->assertCreated();
        [$this->address, $this->secret, $this->id] = [$made->json('url'), $made->json('secret'), $made->json('id')];
        self::assertStringStartsWith('whsec_', $this->secret);
        self::assertNull($this->as('ines.okafor', 'GET', 'hooks')->json('0.secret'), 'it is told once');
        self::assertStringNotContainsString(substr($this->secret, 6), (string) DB::table('hooks')->value('secret'), 'and kept encrypted');
    }

    public function test_what_arrives_makes_a_record_once_and_changes_it_afterwards(): void
    {
        $first = $this->arrives('a-1', ['title' => 'A leak', 'how' => ['urgent' => 'urgent'], 'order' => [['hours' => 2.5]], 'x' => [1]]);
        $first->assertOk()->assertJson(['taken' => true, 'outcome' => 'created']);
        $id = $first->json('record');
        $ticket = (array) DB::table('records_ticket')->find($id);
        self::assertSame(['A leak', 'urgent', '2.50'], [$ticket['subject'], $ticket['priority'], $ticket['hours']]);
        self::assertSame(['hook'], DB::table('entries')->where('kind', 'created')
            ->where('record_type', 'ticket')->where('record_id', $id)->pluck('via')->all());
        self::assertSame(1, DB::table('entries')->where('kind', 'fired')->where('record_id', $id)->count(), 'rules fire');
        $count = DB::table('records_ticket')->count();

        $this->arrives('a-1', ['title' => 'Something else'])->assertOk()->assertJson(['outcome' => 'created', 'record' => $id]);
        self::assertSame([$count, 2], [DB::table('records_ticket')->count(), HookArrival::query()->value('times')], 'done once');
        $this->arrives('a-2', ['title' => 'A leak', 'how' => ['urgent' => 'low']])->assertJson(['outcome' => 'changed', 'record' => $id]);
        $this->arrives('a-3', ['title' => 'A leak'])->assertJson(['outcome' => 'unchanged', 'record' => $id]);
        self::assertSame('low', DB::table('records_ticket')->where('id', $id)->value('priority'));
        $listed = $this->as('ines.okafor', 'GET', "hooks/{$this->id}/arrivals")->assertOk();
        self::assertSame(['unchanged', 'changed', 'created'], array_column($listed->json(), 'outcome'));
        self::assertSame(['A leak'], array_unique(array_column($listed->json(), 'recordTitle')));
    }

    public function test_a_rule_waits_for_what_this_hook_brings_now_and_in_the_past(): void
    {
        $file = [
            'name' => 'By the form', 'on' => 'ticket', 'when' => ['kind' => 'hook_brought', 'hook' => 'Web form'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']]],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'It was the form']],
        ];
        $this->as('ines.okafor', 'POST', 'rules', ['file' => ['when' => ['hook' => 'No such'] + $file['when']] + $file]);
        $rule = $this->inForce($file);
        $this->as('ines.okafor', 'PUT', "hooks/{$this->id}", ['version' => 1, 'name' => 'Other'] + $this->setup)->assertConflict();
        $this->as('ines.okafor', 'DELETE', "hooks/{$this->id}")->assertConflict();

        $id = $this->arrives('1', ['title' => 'A leak', 'how' => ['urgent' => 'low']])->assertOk()->json('record');
        self::assertSame(0, $this->firings($rule), 'the condition is read');
        $this->arrives('2', ['title' => 'A leak', 'how' => ['urgent' => 'urgent']])->assertJson(['outcome' => 'changed']);
        self::assertSame(1, $this->firings($rule));
        $this->arrives('3', ['title' => 'A leak', 'how' => ['urgent' => 'urgent']])->assertJson(['outcome' => 'unchanged']);
        $this->arrives('3', ['title' => 'A leak', 'how' => ['urgent' => 'urgent']]);
        self::assertSame(2, $this->firings($rule), 'something came though nothing changed; what comes twice counts once');
        $this->becomes($id, ['hours' => '1']);
        self::assertSame(2, $this->firings($rule), 'a person is no hook');

        $entry = (int) DB::table('entries')->where('kind', 'hook_brought')->min('id');
        $why = $this->as('ines.okafor', 'GET', "ledger/{$entry}/answers?rule={$rule}")->assertOk();
        self::assertNull($why->json('0.firedIn'), 'the first did not fire');
        self::assertStringContainsString('Brought by the hook “Web form”', (string) json_encode($why->json(), JSON_UNESCAPED_UNICODE));
        $past = explode("\n", trim($this->as('ines.okafor', 'POST', 'look-back', ['file' => $file])->streamedContent()));
        self::assertSame(2, array_sum((array) json_decode((string) end($past), true)['weeks']), 'looked back at');
    }

    public function test_what_is_not_signed_or_too_old_is_turned_away(): void
    {
        $body = (string) json_encode(['title' => 'Forged']);
        $now = time();
        foreach ([
            'no signature' => ['webhook-id' => 'x', 'webhook-timestamp' => (string) $now],
            'another secret' => $this->signed('x', $now, $body, 'whsec_'.base64_encode(random_bytes(24))),
            'another body' => $this->signed('x', $now, $body.' '),
            'another key' => ['webhook-id' => 'y'] + $this->signed('x', $now, $body),
            'replayed next day' => $this->signed('x', $now - 86_400, $body),
            'no key' => $this->signed('', $now, $body),
            'garbage' => ['webhook-id' => 'x', 'webhook-timestamp' => 'soon', 'webhook-signature' => 'v1'],
        ] as $how => $headers) {
            $this->call('POST', $this->path(), server: self::server($headers), content: $body)->assertUnauthorized();
            self::assertSame(0, HookArrival::query()->count(), $how);
        }
        self::assertSame(7, $this->as('ines.okafor', 'GET', 'hooks')->json('0.turnedAway'), 'it is seen that somebody tried');
        $this->call('POST', '/hook/'.str_repeat('0', 32), content: $body)->assertNotFound();
        $this->as('ines.okafor', 'PUT', "hooks/{$this->id}", ['version' => 1, 'isOpen' => false] + $this->setup)->assertOk();
        $this->arrives('x', ['title' => 'Late'])->assertStatus(410);
        self::assertSame(0, DB::table('records_ticket')->whereIn('subject', ['Forged', 'Late'])->count());
    }

    public function test_what_cannot_be_taken_is_kept_mended_and_taken(): void
    {
        foreach ([
            'no JSON' => '<html>', 'a list' => '[]', 'no subject' => '{"how": {"urgent": "low"}}',
            'no choice' => '{"title": "T", "how": {"urgent": "very"}}',
            'many' => '{"title": ["a", "b"]}', 'deep' => str_repeat('{"a":', 200).'1'.str_repeat('}', 200),
        ] as $how => $body) {
            $refused = $this->arrives("bad {$how}", $body)->assertStatus(422);
            self::assertNotSame('', $refused->json('why'), $how);
        }
        $before = DB::table('records_ticket')->count();
        self::assertSame(6, $this->as('ines.okafor', 'GET', 'hooks')->json('0.refused'));
        $bad = HookArrival::query()->where('key', 'bad no choice')->firstOrFail();
        $this->arrives('bad no choice', $bad->raw)->assertStatus(422);
        self::assertSame(2, $bad->refresh()->times, 'it may come again by itself, and is looked at again');

        $mended = ['text' => '{"title": "T", "how": {"urgent": "low"}}'];
        $look = $this->as('ines.okafor', 'POST', "hooks/{$this->id}/try", $mended)->assertOk();
        self::assertNull($look->json('record'));
        $values = $look->json('values');
        self::assertSame(['T', 'Low', 'Open'], [$values['Subject'], $values['Priority'], $values['Status']]);
        $this->as('ines.okafor', 'POST', "hooks/{$this->id}/try", ['text' => $bad->raw])->assertUnprocessable();
        self::assertSame($before, DB::table('records_ticket')->count(), 'tried only');

        $this->as('ines.okafor', 'POST', "hook-arrivals/{$bad->id}/again", $mended)
            ->assertOk()->assertJson(['outcome' => 'created', 'recordTitle' => 'T', 'times' => 3]);
        $this->as('ines.okafor', 'POST', "hook-arrivals/{$bad->id}/again")->assertConflict();
        self::assertSame($before + 1, DB::table('records_ticket')->count());
    }

    public function test_a_rule_that_refuses_is_told_and_leaves_nothing_but_its_entry(): void
    {
        $this->inForce([
            'name' => 'Not at night', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'onlyIf' => ['kind' => 'all', 'of' => [
                ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
            ]], 'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'refuse', 'message' => 'Ring us up instead', 'field' => 'priority'],
            ],
        ]);
        $before = DB::table('records_ticket')->count();
        $this->arrives('r', ['title' => 'Now', 'how' => ['urgent' => 'urgent']])->assertStatus(422)
            ->assertJson(['why' => 'Ring us up instead']);
        self::assertSame([$before, 1], [
            DB::table('records_ticket')->count(), DB::table('entries')->where('kind', 'refused')->where('via', 'hook')->count(),
        ]);
    }

    public function test_its_set_up_is_checked_and_its_secret_can_be_changed(): void
    {
        $wrong = fn (array $given): ?string => $this->as('ines.okafor', 'POST', 'hooks', $given + ['name' => 'Other'] + $this->setup)
            ->assertUnprocessable()->json('problems.0.at');
        self::assertSame('/name', $wrong(['name' => ' ']));
        self::assertSame('/recordType', $wrong(['recordType' => 'ghost']));
        self::assertSame('/takes', $wrong(['takes' => []]));
        self::assertSame('/takes/0/field', $wrong(['takes' => [['path' => 'a', 'field' => 'created_at']]]));
        self::assertSame('/takes/0/path', $wrong(['takes' => [['path' => ' ', 'field' => 'subject']]]));
        self::assertSame('/starts/1/field', $wrong(['starts' => [...array_fill(0, 2, ['field' => 'status', 'value' => 'open'])]]));
        self::assertSame('/knownBy', $wrong(['knownBy' => 'contact']));
        self::assertSame('/knownBy', $wrong(['knownBy' => null, 'mayCreate' => false]));
        $this->as('ines.okafor', 'POST', 'hooks', $this->setup)->assertConflict();
        $this->as('lena.abara', 'POST', 'hooks', ['name' => 'Mine'] + $this->setup)->assertForbidden();
        $fresh = $this->as('ines.okafor', 'PUT', "hooks/{$this->id}", ['version' => 1, 'freshSecret' => true] + $this->setup)->assertOk();
        $this->as('ines.okafor', 'PUT', "hooks/{$this->id}", ['version' => 1] + $this->setup)->assertConflict();
        $this->arrives('old', ['title' => 'Old'])->assertUnauthorized();
        $this->secret = $fresh->json('secret');
        $this->arrives('new', ['title' => 'New'])->assertOk();
        $this->as('ines.okafor', 'DELETE', "hooks/{$this->id}")->assertNoContent();
        self::assertSame([0, 0, 1], [
            Hook::query()->count(), HookArrival::query()->count(), DB::table('records_ticket')->where('subject', 'New')->count(),
        ]);
    }

    public function test_another_maker_signs_as_we_check_and_checks_as_we_sign(): void
    {
        $body = (string) json_encode(['title' => 'Grüße aus Köln']);
        $script = <<<'JS'
            import { Webhook } from 'standardwebhooks';
            const { secret, body, at, ours } = JSON.parse(process.argv[1]);
            const when = new Date(at * 1000);
            const hook = new Webhook(secret);
            hook.verify(body, { 'webhook-id': 'ours', 'webhook-timestamp': String(at), 'webhook-signature': ours });
            console.log(hook.sign('theirs', when, body));
            JS;
        $now = time();
        $node = new Process(['node', '--input-type=module', '-e', $script, (string) json_encode([
            'secret' => $this->secret, 'body' => $body, 'at' => $now, 'ours' => (new Webhook($this->secret))->sign('ours', $now, $body),
        ])], base_path());
        $node->mustRun();
        $headers = ['webhook-id' => 'theirs', 'webhook-timestamp' => (string) $now, 'webhook-signature' => trim($node->getOutput())];
        $this->call('POST', $this->path(), server: self::server($headers), content: $body)->assertOk();
        self::assertSame(1, DB::table('records_ticket')->where('subject', 'Grüße aus Köln')->count());
    }

    /** @param  array<string, mixed>|string  $body */
    private function arrives(string $key, array|string $body): TestResponse
    {
        $text = is_string($body) ? $body : (string) json_encode($body);

        return $this->call('POST', $this->path(), server: self::server($this->signed($key, time(), $text)), content: $text);
    }

    private function path(): string
    {
        return (string) parse_url($this->address, PHP_URL_PATH);
    }

    /** @return array<string, string> */
    private function signed(string $key, int $at, string $body, ?string $secret = null): array
    {
        return [
            'webhook-id' => $key, 'webhook-timestamp' => (string) $at,
            'webhook-signature' => (new Webhook($secret ?? $this->secret))->sign($key, $at, $body),
        ];
    }

    /**
     * @param  array<string, string>  $headers
     * @return array<string, string>
     */
    private static function server(array $headers): array
    {
        $server = ['CONTENT_TYPE' => 'application/json'];
        foreach ($headers as $name => $value) {
            $server['HTTP_'.strtoupper(strtr($name, '-', '_'))] = $value;
        }

        return $server;
    }
}
