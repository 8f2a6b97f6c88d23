<?php

declare(strict_types=1);

namespace Tests\App\Access;

use App\Models\Access\StoredRole;
use App\Models\Access\TokenScope;
use App\Models\People\Person;
use App\Store\Access\AccessScope;
use App\Store\Outbound\LetterLinks;
use App\Work\Outbound\NoticeLetters;
use App\Work\Timing\LineWorker;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\Yaml\Yaml;
use Tests\App\Support\AppTestCase;

/**
 * A mark stands in every place that is hidden from somebody: in a hidden field, its history, in texts that rules made of it, in rules,
 * views and conditions that name it, in records out of sight and of types that are kept from them. No answer they get holds one.
 */
final class HiddenMarksTest extends AppTestCase
{
    private const READ_ALL = ['customer' => ['read' => 'all', 'change' => 'all', 'export' => 'all'],
        'ticket' => ['read' => 'all', 'change' => 'all',
            'export' => 'all'], 'agreement' => ['read' => 'all'], 'quote' => ['read' => 'all'], 'visit' => ['read' => 'all'],
        'partner' => ['read' => 'all']];

    private const FIELDS = ['customer' => ['tax_number' => 'hidden', 'yearly_value' => 'hidden', 'website' => 'hidden']];

    /** @var array<string, int> ids by what they are of */
    private array $ids = [];

    /** @return iterable<string, array{array<string, mixed>, ?list<string>}> roles, and for a token what it may */
    public static function roles(): iterable
    {
        $contacts = self::READ_ALL + ['contact' => ['read' => 'all', 'export' => 'all']];
        yield 'all but some fields' => [['duties' => [], 'reaches' => $contacts, 'fields' => self::FIELDS], null];
        yield 'all but some fields, with duties' => [['duties' => ['see_ledger', 'see_messages', 'see_doors', 'do_all_tasks'],
            'reaches' => $contacts, 'fields' => self::FIELDS], null];
        yield 'without a type' => [['duties' => ['see_ledger', 'see_messages'], 'reaches' => self::READ_ALL, 'fields' => self::FIELDS],
            null];
        $own = ['customer' => ['read' => 'own', 'change' => 'own', 'export' => 'own'], 'ticket' => ['read' => 'own', 'change' => 'own',
            'export' => 'own', 'run' => 'own', 'delete' => 'own']];
        yield 'their own' => [['duties' => ['see_ledger', 'see_messages'], 'reaches' => $own, 'fields' => self::FIELDS], null];
        yield 'their own, by a token that may only read' => [['duties' => ['see_ledger', 'see_messages'], 'reaches' => $own,
            'fields' => self::FIELDS], [TokenScope::Reading->value]];
    }

    /**
     * @param  array<string, mixed>  $role
     * @param  ?list<string>  $scope
     */
    #[DataProvider('roles')]
    public function test_no_answer_holds_what_is_hidden(array $role, ?array $scope): void
    {
        StoredRole::query()->create(['name' => 'marked', 'position' => 9, 'version' => 1, 'file' => ['label' => 'Marked'] + $role]);
        $lena = $this->person('lena.abara');
        $lena->update(['role' => 'marked', 'notice_ways' => ['note' => 'letter', 'task' => 'letter', 'mention' => 'letter'],
            'notices_since' => '2026-11-24 00:00:00']);
        $this->plant();
        self::assertFalse($this->app->make(AccessScope::class)->of($lena)->isEverything());
        $seesContacts = isset($role['reaches']['contact']);
        $seesOthers = $role['reaches']['customer']['read'] === 'all';
        $marks = ['XMARKFIELD', '98765432', ...$seesContacts ? [] : ['XMARKCONTACT'], ...$seesOthers ? [] : ['XMARKOUT']];
        $token = $scope === null ? null : $lena->createToken('marks', $scope)->plainTextToken;
        $went = 0;
        foreach ($this->addresses() as $address) {
            $answer = $this->get_($lena, $token, 'GET', $address);
            $this->assertUnmarked($marks, $answer, $address);
            self::assertSame(LetterLinks::masked(self::body($answer)), self::body($answer), "{$address} lets nobody act");
            $went += $answer->getStatusCode() === 200 ? 1 : 0;
        }
        self::assertGreaterThan(60, $went);
        // What somebody looks for by a hidden value is not found, and not counted.
        foreach (['records/customer?search=XMARKFIELD', 'find?text=XMARKFIELD', 'records/customer?search=98765432'] as $search) {
            $found = $this->get_($lena, $token, 'GET', "api/{$search}")->assertOk()->json();
            self::assertSame(0, $found['total'] ?? count($found['records']), $search);
        }
        if (in_array('see_ledger', $role['duties'], true)) {
            foreach ($marks as $mark) {
                self::assertSame([], $this->get_($lena, $token, 'GET', "api/ledger?text={$mark}")->assertOk()->json('entries'), $mark);
            }
            // What they may read is found by its words, in whatever order.
            $first = $this->get_($lena, $token, 'GET', 'api/ledger')->json('entries.0');
            $words = implode('%20', array_reverse(explode(' ', $first['headInLedger']['strong'])));
            $numbers = array_column($this->get_($lena, $token, 'GET', "api/ledger?text={$words}")->json('entries'), 'number');
            self::assertContains($first['number'], $numbers);
            // The file has the same, and besides at most the entry that it was taken.
            $file = $this->get_($lena, $token, 'GET', "api/ledger/file?text={$words}")->assertOk();
            preg_match_all('/^(\d+),/m', self::body($file), $lines);
            $earlier = array_filter(array_map(intval(...), $lines[1]), static fn (int $one): bool => $one <= $first['number']);
            self::assertSame($numbers, array_slice(array_values($earlier), 0, count($numbers)));
            self::assertTrue(count($numbers) === 50 || count($earlier) === count($numbers));
        }
        if ($token === null) {
            $preview = $this->get_($lena, null, 'POST', 'api/bulk/preview', ['recordType' => 'customer', 'search' => 'XMARKFIELD',
                'values' => ['name' => 'x']]);
            self::assertSame(0, $preview->assertOk()->json('total'));
            foreach (['records/customer?sort=tax_number', 'records/customer/groups?by=tax_number',
                'records/customer/counts/tax_number'] as $asks) {
                self::assertContains($this->get_($lena, null, 'GET', "api/{$asks}")->getStatusCode(), [404, 422], $asks);
            }
        }
        // Letters to them tell as little: those of the morning, and of sign-offs.
        $this->app->make(NoticeLetters::class)->work();
        foreach (DB::table('messages')->where('recipients', 'like',
            "%{$lena->email}%")->whereNull('rule_id')->orWhereNotNull('seat_id')->get() as $letter) {
            foreach ($marks as $mark) {
                self::assertStringNotContainsString($mark, $letter->subject.$letter->html.$letter->text, 'a letter to them');
            }
        }
    }

    /** Whoever sees everything is shown it: the marks stand where they should. */
    public function test_whoever_sees_everything_finds_the_marks(): void
    {
        StoredRole::query()->create(['name' => 'marked', 'position' => 9, 'version' => 1, 'file' => ['label' => 'Marked', 'duties' => [],
            'reaches' => self::READ_ALL]]);
        $this->plant();
        $found = [];
        foreach ($this->addresses() as $address) {
            $answer = $this->get_($this->person('ines.okafor'), null, 'GET', $address);
            foreach (['XMARKFIELD', '98765432', 'XMARKCONTACT', 'XMARKOUT'] as $mark) {
                $found[$mark] = ($found[$mark] ?? 0) + (str_contains(self::body($answer), $mark) ? 1 : 0);
            }
        }
        self::assertGreaterThan(20, $found['XMARKFIELD']);
        self::assertGreaterThan(2, min($found));
    }

    private function plant(): void
    {
        $lena = $this->person('lena.abara')->id;
        foreach ($this->rules() as $rule) {
            $this->inForce($rule);
        }
        $admin = 'ines.okafor';
        $values = ['status' => 'active', 'plan' => 'care', 'kind' => 'hotel'];
        $out = $this->created('customer', ['name' => 'XMARKOUT Inn', 'owner' => $this->person('jonas.pike')->id] + $values,
            $admin)['record']['id'];
        $customer = $this->created('customer',
            ['name' => 'Seen Inn', 'owner' => $lena, 'tax_number' => 'XMARKFIELD0', 'yearly_value' => '98765432.10',
                'website' => 'https://xmarkfield.example/XMARKFIELD'] + $values, $admin)['record'];
        $this->change($customer, ['tax_number' => 'XMARKFIELD1'], $admin);
        $contact = $this->created('contact',
            ['name' => 'XMARKCONTACT Solheim', 'customer' => $customer['id'], 'email' => 'XMARKCONTACT@brine.example'],
            $admin)['record']['id'];
        $made = static fn (int $of, array $more): array => $more
            + ['priority' => 'normal', 'status' => 'open', 'owner' => $lena, 'customer' => $of];
        $ticket = $this->created('ticket', $made($customer['id'], ['subject' => 'Palm leans', 'contact' => $contact]), 'bram.castellan');
        $this->created('ticket', $made($out, ['subject' => 'Fern wilts']), 'bram.castellan');
        $this->as($admin, 'POST', 'records/customer/views', ['name' => 'Of tax', 'shared' => 'everybody', 'definition' => [
            'columns' => ['name', 'tax_number'], 'filter' => ['kind' => 'is', 'field' => 'tax_number', 'value' => 'XMARKFIELD'],
        ]])->assertCreated();
        $this->as($admin, 'POST', 'named-conditions', ['name' => 'Of tax', 'recordType' => 'customer', 'file' => ['kind' => 'all', 'of' => [
            ['kind' => 'is', 'field' => 'tax_number', 'value' => 'XMARKFIELD'],
        ]]])->assertCreated();
        $this->as($admin, 'POST', 'letters', ['name' => 'Of tax', 'recordType' => 'customer', 'subject' => 'XMARKFIELD {tax_number}',
            'body' => '<p>XMARKFIELD</p>'])->assertCreated();
        $task = DB::table('tasks')->where('title', 'like', 'Look%')->where('record_id', $ticket['record']['id'])->min('id');
        $this->as($admin, 'POST', "tasks/{$task}/complete", ['outcome' => ''])->assertSuccessful();
        $this->clockAt('2026-11-24T10:00:00Z');
        $this->app->make(LineWorker::class)->work(100);
        $this->ids = ['ticket' => $ticket['record']['id'], 'customer' => $customer['id'], 'entry' => $ticket['entry'],
            'rule' => (int) DB::table('rules')->min('id')];
    }

    /** @return list<array<string, mixed>> rules whose texts, conditions and lines tell of what is hidden */
    private function rules(): array
    {
        $lena = ['kind' => 'named', 'handle' => 'lena.abara'];
        $to = [['kind' => 'person', 'person' => $lena]];
        $tells = 'tax {customer.tax_number}, worth {customer.yearly_value}, of {customer.name}, ask {contact.name}';
        $body = '<p>It is <span data-merge="customer.tax_number">x</span> of <span data-merge="contact.name">x</span> and '
            .'<span data-merge="customer.name">x</span></p>';

        return [
            ['name' => 'Tells', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'], 'lines' => [
                ['kind' => 'give_task', 'to' => $lena, 'title' => "Look: {$tells}", 'notes' => $tells],
                ['kind' => 'give_task', 'to' => $lena, 'title' => "Do: {$tells}", 'due' => ['amount' => 1, 'unit' => 'day']],
                ['kind' => 'comment', 'text' => "Note: {$tells}"],
                ['kind' => 'remind', 'to' => $lena, 'text' => "Mind: {$tells}"],
                ['kind' => 'send_message', 'channel' => 'app', 'to' => $to, 'subject' => "Read: {$tells}", 'body' => $body],
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => "Read: {$tells}",
                    'body' => $body],
                ['kind' => 'slip', 'to' => $to, 'subject' => "Well: {$tells}", 'body' => $body,
                    'asks' => [['kind' => 'tick', 'label' => 'Well?']]],
                ['kind' => 'sign_off', 'why' => "Because: {$tells}", 'steps' => [['who' => ['kind' => 'people', 'people' => [$lena]]]]],
                ['kind' => 'set_fields', 'on' => 'customer', 'set' => [
                    ['field' => 'website', 'to' => ['kind' => 'value', 'value' => 'https://xmarkfield.example/XMARKFIELD2']],
                ]],
            ]],
            ['name' => 'Sets', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
                'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'customer.tax_number', 'value' => 'XMARKFIELD9']]],
                'lines' => [
                    ['kind' => 'comment', 'text' => 'Never', 'onlyIf' => [
                        'kind' => 'is', 'field' => 'customer.tax_number', 'value' => 'XMARKFIELD5',
                    ]],
                    ['kind' => 'if', 'that' => ['kind' => 'is', 'field' => 'customer.tax_number', 'value' => 'XMARKFIELD6']],
                    ['kind' => 'otherwise'],
                    ['kind' => 'if', 'that' => ['kind' => 'is_not', 'field' => 'customer.tax_number', 'value' => 'XMARKFIELD7'],
                        'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'hour']],
                    ['kind' => 'in_all_cases'],
                    ['kind' => 'comment', 'text' => 'Waited', 'at' => ['kind' => 'once_true', 'that' => [
                        'kind' => 'is_not', 'field' => 'customer.tax_number', 'value' => 'XMARKFIELD10',
                    ]]],
                    ['kind' => 'comment', 'text' => 'Waits', 'at' => ['kind' => 'once_true', 'that' => [
                        'kind' => 'is', 'field' => 'customer.tax_number', 'value' => 'XMARKFIELD11',
                    ]]],
                    ['kind' => 'set_fields', 'on' => 'customer', 'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'hour'], 'set' => [
                        ['field' => 'tax_number', 'to' => ['kind' => 'value', 'value' => 'XMARKFIELD3']],
                    ]],
                    ['kind' => 'set_fields', 'on' => 'customer', 'at' => ['kind' => 'after', 'amount' => 9, 'unit' => 'day'], 'set' => [
                        ['field' => 'tax_number', 'to' => ['kind' => 'value', 'value' => 'XMARKFIELD4']],
                    ]],
                    ['kind' => 'give_task', 'to' => $lena, 'title' => "Late: {$tells}",
                        'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'hour']],
                ], 'until' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'customer.tax_number', 'value' => 'XMARKFIELD8']]]],
            ['name' => 'Changes', 'on' => 'customer', 'when' => ['kind' => 'created_or_changed'], 'fires' => ['kind' => 'every_time'],
                'lines' => [
                    ['kind' => 'comment', 'text' => '{changes}, was {was.tax_number}'],
                ]],
        ];
    }

    /** @return list<string> every address that is read, of the ticket and of its customer */
    private function addresses(): array
    {
        $addresses = [];
        foreach (array_merge(...array_values(Yaml::parseFile(dirname(__DIR__).'/Support/routes.yaml'))) as $route) {
            [$method, $uri] = explode(' ', $route);
            $isOpen = preg_match('#welcome|decide|feed/|mail-room|^up$|metrics|unsubscribe|^slip/\{|csrf|session/cookie#', $uri) === 1;
            if ($method === 'GET' && ! $isOpen) {
                array_push($addresses, ...$this->of($uri, 'ticket'), ...str_contains($uri, '{type}') ? $this->of($uri, 'customer') : []);
            }
        }
        array_push($addresses, ...array_map(static fn (string $asks): string => "api/{$asks}", [
            'records/customer/groups?by=kind&sums=yearly_value', 'records/ticket/groups?by=customer', 'records/ticket/groups?by=contact',
            'tasks?whose=all&limit=500', 'tasks?whose=all&status=done',
            'messages?status=all&limit=200', 'sign-offs?box=all&limit=500', 'slips?box=all&limit=200', 'lines?date=2026-12-03',
            'ledger/file',
            'records/customer/file', 'records/ticket/file', 'find?text=Inn', 'notices', 'today',
            'records/ticket?columns=customer,contact,next',
            'records/customer?columns=name,next', "records/ticket/{$this->ids['ticket']}/why?rule=".($this->ids['rule'] + 1),
        ]));

        return array_values(array_unique($addresses));
    }

    /** @return list<string> */
    private function of(string $uri, string $type): array
    {
        $first = static fn (string $table, string $order = 'max'): int => (int) DB::table($table)->{$order}('id');
        $ids = match (true) {
            str_starts_with($uri, 'api/tasks/') => DB::table('tasks')->pluck('id')->all(),
            str_starts_with($uri, 'api/messages/') => DB::table('messages')->pluck('id')->all(),
            str_starts_with($uri, 'api/ledger/') => DB::table('entries')->pluck('id')->all(),
            str_starts_with($uri, 'api/rules/') => DB::table('rules')->pluck('id')->all(),
            str_starts_with($uri, 'api/sign-offs/') => DB::table('sign_offs')->pluck('id')->all(),
            str_starts_with($uri, 'slip/mine') => DB::table('slips')->pluck('id')->all(),
            str_starts_with($uri, 'api/letters/') => [$first('letters')],
            str_starts_with($uri, 'api/slip-forms/') => [$first('slip_forms')],
            default => [$this->ids[$type]],
        };

        return array_map(fn (int $id): string => strtr($uri, [
            '{type}' => $type, '{id}' => (string) $id, '{number}' => (string) $id,
            '{field}' => $type === 'customer' ? 'tax_number' : 'status',
        ]).match (true) {
            str_ends_with($uri, '/then') => "?entry={$this->ids['entry']}",
            $uri === 'api/lines' => '?date=2026-11-25',
            str_ends_with($uri, '/difference') => '?from=1&to=1',
            $uri === 'api/find' => '?text=Palm',
            default => '',
        }, $ids);
    }

    /** @param  array<string, mixed>  $body */
    private function get_(Person $actor, ?string $token, string $method, string $address, array $body = []): TestResponse
    {
        $this->flushControllers();
        $this->app->make('auth')->forgetGuards();
        if ($token !== null) {
            return $this->withToken($token)->json($method, "/{$address}", $body);
        }
        $this->actingAs(Person::query()->findOrFail($actor->id), 'sanctum');

        return $this->json($method, "/{$address}", $body);
    }

    private static function body(TestResponse $answer): string
    {
        return $answer->baseResponse instanceof StreamedResponse ? $answer->streamedContent() : (string) $answer->getContent();
    }

    /** @param  list<string>  $marks */
    private function assertUnmarked(array $marks, TestResponse $answer, string $address): void
    {
        $body = self::body($answer);
        foreach ($marks as $mark) {
            $at = stripos($body, $mark);
            self::assertFalse($at, "{$address}: ".($at === false ? '' : substr($body, max(0, $at - 200), 260)));
        }
        self::assertLessThan(500, $answer->getStatusCode(), $address);
    }
}
