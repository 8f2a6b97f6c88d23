<?php

declare(strict_types=1);

namespace Tests\App\Timing;

use App\StandIn\Eml;
use App\StandIn\SmtpServer;
use App\Store\Timing\RunStore;
use App\Work\Outbound\OutboxRelay;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Process\Process;
use Tests\App\Support\AppTestCase;

/** What each kind of line does to the world, and what becomes of it when something goes wrong. */
final class LineStoriesTest extends AppTestCase
{
    /** Kinds of line that have a story in this file. */
    public const TOLD = ['set_fields', 'give_task', 'give_tasks', 'send_message', 'create_record', 'assign', 'comment', 'follow', 'refuse'];

    public function test_a_won_quote_marks_customer_and_contact_and_makes_the_agreement(): void
    {
        $this->as(
            'ines.okafor',
            'POST',
            'letters',
            [
                'recordType' => 'quote', 'name' => 'Welcome to Larkmoss', 'subject' => 'Welcome, {customer.name}',
                'body' => '<p>For <span data-merge="net">Net</span>, <span data-merge="spaces">Spaces</span>.</p>',
            ],
        )->assertCreated();
        $this->inForce($this->demoFile('120-quote-won'));
        $customer = $this->customer('Hotel Vane');
        $contact = $this->created(
            'contact',
            [
                'name' => 'Marit Solheim', 'customer' => $customer['id'], 'email' => 'marit@hotel.example', 'language' => 'de',
                'may_write' => true,
            ],
        )['record'];
        $quote = $this->created(
            'quote',
            [
                'subject' => 'Green wall', 'customer' => $customer['id'], 'contact' => $contact['id'], 'stage' => 'talks',
                'amount' => '12000', 'discount' => '10', 'spaces' => ['spa', 'lobby'], 'owner' => $this->person('jonas.pike')->id,
            ],
        )['record'];
        self::assertSame(
            ['10800.00', 'lobby,spa'],
            [$quote['values']['net'], $quote['values']['spaces']],
            'the formula field is computed, the choices stand in their order',
        );
        $won = $this->change($quote, ['stage' => 'won'], 'jonas.pike');

        self::assertSame('2026-11-24', $won['record']['values']['won_on']);
        self::assertSame('active', $this->as('ines.okafor', 'GET', "records/customer/{$customer['id']}")->json('values.status'));
        self::assertTrue($this->as('ines.okafor', 'GET', "records/contact/{$contact['id']}")->json('values.active'));
        $agreement = (array) DB::selectOne('SELECT * FROM records_agreement');
        self::assertSame(
            ['Care of Hotel Vane', $quote['id'], '2026-12-01', '2027-11-24', '900.00', '10800.00'],
            [
                $agreement['title'], (int) $agreement['quote'], $agreement['start'], $agreement['end'], $agreement['fee'],
                $agreement['yearly'],
            ],
        );
        $tasks = DB::table('tasks')->orderBy('id')->get();
        self::assertSame(
            ['Welcome Hotel Vane', 'First invoice for Hotel Vane', 'Plan the crew for Hotel Vane'],
            $tasks->pluck('title')->all(),
        );
        self::assertSame(
            ['high', "Spaces: Lobby and Spa\nNet a year: € 10,800.00", 'contact'],
            [$tasks[1]->priority, $tasks[2]->notes, $tasks[0]->about_type],
        );

        // The letter speaks German and stands on both accounts; its rule's firing is on the account of what it changed, too.
        $letters = $this->as('ines.okafor', 'GET', "records/contact/{$contact['id']}/messages")->json();
        self::assertSame(
            [
                $letters[0]['text'] === "Für 10.800,00\u{A0}€, Lobby und Spa." ? 'x' : "For 10.800,00\u{A0}€, Lobby und Spa.",
                ['Marit Solheim <marit@hotel.example>'], ['Jonas Pike <jonas.pike@larkmoss.example>'], 'waiting',
            ],
            [$letters[0]['text'], $letters[0]['to'], $letters[0]['cc'], $letters[0]['status']],
        );
        self::assertSame($letters[0]['id'], $this->as('ines.okafor', 'GET', "records/quote/{$quote['id']}/messages")->json('0.id'));
        $account = $this->as('ines.okafor', 'GET', "records/customer/{$customer['id']}/account")->json('entries');
        self::assertSame(['comment', 'changed', 'created'], array_column($account, 'kind'));
        self::assertSame(['rule', $won['fired'][0]['entry']], [$account[1]['via'], $account[1]['cause']]);
    }

    public function test_a_message_goes_over_smtp_to_the_mail_room_once(): void
    {
        $taken = [];
        $server = new SmtpServer('127.0.0.1:0', static function (string $raw) use (&$taken): void {
            $taken[] = $raw;
        });
        $port = (int) substr((string) strrchr($server->address(), ':'), 1);
        $this->inForce(['name' => 'Write', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'send_message', 'to' => [
                    ['kind' => 'address', 'address' => 'desk@hotel.example'],
                ], 'replyTo' => [['kind' => 'person', 'person' => ['kind' => 'owner']]],
                    'subject' => 'About {subject}', 'body' => '<p>Hello <strong><span '
                        .'data-merge="subject">x</span></strong></p><ul><li>one</li></ul>'],
            ]]);
        $evil = '<script>alert(1)</script> {{ 7*7 }} {number}';
        $this->ticket(['subject' => $evil]);
        // The postman and the mail room speak to each other in two processes, as they do at work.
        $postman = Process::fromShellCommandline(PHP_BINARY.' tests/App/Support/deliver.php', base_path(), [
            'MESSAGE' => json_encode(
                DB::selectOne('SELECT * FROM messages'),
                JSON_THROW_ON_ERROR,
            ), 'MAIL_DSN' => "smtp://127.0.0.1:{$port}?auto_tls=false",
        ]);
        $postman->start();
        for ($until = microtime(true) + 20; $postman->isRunning() && microtime(true) < $until;) {
            $server->serve(0.1);
        }
        self::assertSame(0, $postman->wait(), $postman->getErrorOutput());

        self::assertCount(1, $taken);
        $letter = Eml::read($taken[0]);
        self::assertSame("About {$evil}", $letter->header('Subject'));
        self::assertSame('desk@hotel.example', $letter->header('To'));
        self::assertStringContainsString('bram.castellan@larkmoss.example', $letter->header('Reply-To'));
        self::assertStringContainsString('&lt;script&gt;alert(1)&lt;/script&gt; {{ 7*7 }} {number}', $letter->html());
        self::assertSame("Hello {$evil}\n\n- one", str_replace("\r", '', $letter->text()));
    }

    public function test_a_message_that_cannot_be_delivered_is_tried_again_and_then_waits_for_a_person(): void
    {
        $this->inForce(['name' => 'Write', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'send_message', 'to' => [['kind' => 'address', 'address' => 'desk@hotel.example']], 'subject' => 'S',
                    'body' => '<p>B</p>',
                ],
            ]]);
        $this->ticket();
        config(['ledger.mail.dsn' => 'smtp://127.0.0.1:1?auto_tls=false']);
        $postman = $this->app->make(OutboxRelay::class);
        self::assertSame([1, 0], [$postman->work(10), $postman->work(10)], 'it waits before the next try');
        self::assertSame(['waiting', 1], array_values((array) DB::selectOne('SELECT status, tries FROM messages')));
        DB::table('messages')->update(['tries' => 7, 'next_try_at' => '2020-01-01']);
        $postman->work(10);
        $failed = $this->as('ines.okafor', 'GET', 'messages?status=failed')->json('0');
        self::assertSame(['failed', 8], [$failed['status'], $failed['tries']]);
        self::assertNotSame('', $failed['trouble']);
        $this->as('ines.okafor', 'POST', "messages/{$failed['id']}/again")->assertOk()->assertJsonPath('status', 'waiting');
        // A sender that died keeps its lease for a while, and then the letter is anybody's again.
        DB::table('messages')->update(['leased_until' => '2030-01-01']);
        self::assertSame(0, $postman->work(10));
    }

    public function test_notes_reach_followers_and_missing_values_are_said(): void
    {
        $this->inForce(['name' => 'Tell', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'follow', 'who' => ['kind' => 'doer']],
                [
                    'kind' => 'send_message', 'channel' => 'app',
                    'to' => [['kind' => 'followers'], ['kind' => 'person', 'person' => ['kind' => 'owner']]], 'subject' => 'Changed',
                    'body' => '<p><span data-merge="due">Due</span></p>',
                ],
                ['kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'S', 'body' => '<p>B</p>'],
            ]]);
        $ticket = $this->ticket()['record'];
        $this->as('odile.march', 'POST', "records/ticket/{$ticket['id']}/follow", ['follows' => true])->assertNoContent();
        $saved = $this->change($ticket, ['hours' => '1'], 'lena.abara');
        self::assertSame(['Changed'], array_column($this->as('odile.march', 'GET', 'notes')->json(), 'subject'));
        self::assertSame(['Changed'], array_column($this->as('bram.castellan', 'GET', 'notes')->json(), 'subject'));
        $did = $this->as('ines.okafor', 'GET', "ledger/{$saved['fired'][0]['entry']}")->json('entry.data.did');
        self::assertSame(['Due'], $did[1]['missing']);
        self::assertSame('there is nobody to send it to: Contact is empty', end($did)['why']);
        self::assertSame('Lena Abara', $did[0]['person']);
    }

    public function test_owners_take_turns_and_the_least_loaded_gets_it(): void
    {
        $this->inForce([
            'name' => 'In turn', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'assign', 'to' => ['kind' => 'in_turn', 'team' => 'Finance']]],
        ]);
        $team = DB::table('people')->where('team', 'Finance')->where('active', true)->orderBy('id')->pluck('id')->map(intval(...))->all();
        $owners = array_map(fn (): int => $this->ticket()['record']['values']['owner'], range(1, count($team) + 1));
        self::assertSame([...$team, $team[0]], $owners);
        $this->inForce(['name' => 'Load', 'on' => 'customer', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'give_task', 'to' => ['kind' => 'least_loaded', 'team' => 'Finance'], 'title' => 'One', 'due' => null,
                ], ['kind' => 'give_task', 'to' => ['kind' => 'least_loaded', 'team' => 'Finance'], 'title' => 'Two', 'due' => null],
            ]]);
        DB::table('tasks')->delete();
        $this->customer();
        self::assertSame([$team[0], $team[1]], DB::table('tasks')->orderBy('id')->pluck('assignee_id')->map(intval(...))->all());
    }

    public function test_a_refused_save_writes_nothing_and_says_why_at_its_field(): void
    {
        $this->inForce($this->demoFile('220-no-visit-left'));
        $this->inForce([
            'name' => 'Also', 'on' => 'visit', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'x', 'due' => null]],
        ]);
        $agreement = $this->created(
            'agreement',
            ['title' => 'Care', 'customer' => $this->customer()['id'], 'status' => 'running', 'visits_left' => '0'],
        )['record'];
        $answer = $this->as(
            'bram.castellan',
            'POST',
            'records/visit',
            ['values' => ['purpose' => 'Check', 'agreement' => $agreement['id'], 'status' => 'planned']],
        );
        $this->assertRefused($answer, 422, 'refused_by_rule', '/values/agreement');
        self::assertSame('Care has no visit left. Renew it first.', $answer->json('detail'));
        self::assertSame([0, 0], [DB::table('records_visit')->count(), DB::table('tasks')->count()]);
        $entry = $this->as('ines.okafor', 'GET', 'ledger?show=rules')->json('entries.0');
        self::assertSame(['refused', 'No visit without one left', 'Bram Castellan'], [$entry['kind'], $entry['ruleName'], $entry['who']]);
    }

    public function test_a_counter_stays_at_its_bound_or_refuses_as_chosen(): void
    {
        $subtract = static fn (string $beyond): array => ['name' => $beyond, 'on' => 'visit', 'when' => [
            'kind' => 'changed', 'fields' => ['status'], 'to' => $beyond === 'stop' ? 'done' : 'cancelled',
        ], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'set_fields', 'on' => 'agreement',
                'set' => [['field' => 'visits_left', 'to' => ['kind' => 'subtract', 'amount' => '1', 'beyond' => $beyond]]]]]];
        $this->inForce($subtract('stop'));
        $this->inForce($subtract('refuse'));
        $agreement = $this->created(
            'agreement',
            ['title' => 'Care', 'customer' => $this->customer()['id'], 'status' => 'running', 'visits_left' => '1'],
        )['record'];
        $visits = array_map(
            fn (): array => $this->created(
                'visit',
                ['purpose' => 'Check', 'agreement' => $agreement['id'], 'status' => 'planned'],
            )['record'],
            range(1, 3),
        );
        $left = fn (): string => (string) DB::scalar('SELECT visits_left FROM records_agreement');
        $this->change($visits[0], ['status' => 'done']);
        self::assertSame('0', $left());
        $this->change($visits[1], ['status' => 'done']);
        self::assertSame('0', $left());
        $refused = $this->as(
            'bram.castellan',
            'PATCH',
            "records/visit/{$visits[2]['id']}",
            ['version' => 1, 'values' => ['status' => 'cancelled']],
        );
        $this->assertRefused($refused, 422, 'refused_by_rule');
        self::assertSame('Visits left would be -1, and is at least 0.', $refused->json('detail'));
    }

    public function test_lines_of_their_own_condition_switched_off_and_on_children(): void
    {
        $open = ['kind' => 'is_not', 'field' => 'status', 'value' => 'closed'];
        $this->inForce(['name' => 'Lost', 'on' => 'customer', 'when' => [
            'kind' => 'changed', 'fields' => ['status'], 'to' => 'lost',
        ], 'fires' => ['kind' => 'every_time'], 'lines' => [
            [
                'kind' => 'set_fields', 'on' => 'ticket.customer', 'where' => ['kind' => 'all', 'of' => [$open]],
                'set' => [
                    ['field' => 'priority', 'to' => ['kind' => 'value', 'value' => 'low']],
                    ['field' => 'tags', 'to' => ['kind' => 'add_member', 'member' => 'lost']],
                ],
            ],
            ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Off', 'due' => null, 'off' => true],
            [
                'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Only for clinics', 'due' => null,
                'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'kind', 'value' => 'clinic']]],
            ],
            ['kind' => 'comment', 'text' => 'Gone: {name}'],
        ]]);
        $customer = $this->customer();
        $tickets = array_map(
            fn (string $status): array => $this->ticket(['customer' => $customer['id'], 'status' => $status])['record'],
            ['open', 'closed', 'waiting'],
        );
        $saved = $this->change($customer, ['status' => 'lost']);
        self::assertSame(
            [['low', 'lost', 2], ['normal', null, 1], ['low', 'lost', 2]],
            array_map(
                static fn (object $row): array => [$row->priority, $row->tags, $row->version],
                DB::select('SELECT * FROM records_ticket ORDER BY id'),
            ),
        );
        self::assertSame(0, DB::table('tasks')->count());
        $did = $this->as('ines.okafor', 'GET', "ledger/{$saved['fired'][0]['entry']}")->json('entry.data.did');
        self::assertSame('skipped', $did[4]['kind']);
        self::assertStringContainsString('‘Kind is Clinic’ does not hold, the value is empty', $did[4]['why']);
        self::assertSame('Gone: Brine & Barrow Hotel', DB::table('comments')->value('text'));
        self::assertSame(
            409,
            $this->as(
                'bram.castellan',
                'PATCH',
                "records/ticket/{$tickets[0]['id']}",
                ['version' => 1, 'values' => ['priority' => 'high']],
            )->status(),
            'who changes the same is told',
        );
        self::assertSame(
            200,
            $this->as(
                'bram.castellan',
                'PATCH',
                "records/ticket/{$tickets[0]['id']}",
                ['version' => 1, 'values' => ['hours' => '1']],
            )->status(),
            'who changes something else is not',
        );
    }

    public function test_of_an_either_or_set_only_the_narrowest_that_matches_fires(): void
    {
        $board = $this->inForce($this->demoFile('140-discount-board'));
        $lead = $this->inForce($this->demoFile('150-discount-lead'));
        foreach ([$board, $lead] as $rule) {
            $this->as(
                'ines.okafor',
                'POST',
                "rules/{$rule}/either-or",
                ['set' => 'Discounts'],
            )->assertOk()->assertJsonPath('eitherOr', 'Discounts');
        }
        $quote = fn (string $discount): array => $this->created(
            'quote',
            [
                'subject' => 'Q', 'customer' => $this->customer()['id'], 'stage' => 'draft', 'discount' => $discount,
                'owner' => $this->person('jonas.pike')->id,
            ],
        );
        self::assertSame(
            ['board', 'lead', null],
            array_map(
                static fn (array $saved): ?string => $saved['record']['values']['discount_class'],
                [$high = $quote('35'), $quote('15'), $quote('5')],
            ),
        );
        $answers = $this->as('ines.okafor', 'GET', "ledger/{$high['entry']}/answers")->json();
        self::assertSame(['fires', 'forestalled'], array_column(array_column($answers, 'verdict'), 'reason'));
        // In the other order as well: the narrower range comes first, wherever it stands.
        $this->as('ines.okafor', 'POST', 'rules/order', ['recordType' => 'quote', 'rules' => [$lead, $board]])->assertOk();
        self::assertSame(
            ['board', 'lead'],
            array_map(static fn (array $saved): ?string => $saved['record']['values']['discount_class'], [$quote('35'), $quote('15')]),
        );
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', 'rules/order', ['recordType' => 'quote', 'rules' => [$lead]]),
            409,
            'stale_order',
        );
    }

    public function test_a_run_by_hand_on_a_selection_tells_each_result(): void
    {
        $rule = $this->inForce($this->demoFile('105-ask-for-photos'));
        $customer = $this->customer();
        $contact = $this->created('contact', ['name' => 'Marit', 'customer' => $customer['id'], 'email' => 'm@x.example'])['record'];
        $ids = array_map(
            fn (string $status): int => $this->ticket([
                'customer' => $customer['id'], 'contact' => $contact['id'], 'status' => $status,
            ])['record']['id'],
            ['open', 'closed', 'open'],
        );
        $run = $this->as(
            'bram.castellan',
            'POST',
            "rules/{$rule}/run",
            ['recordType' => 'ticket', 'records' => [...$ids, 99999]],
        )->assertCreated()->json();
        self::assertSame(['waiting', 4, 0], [$run['status'], $run['total'], $run['done']]);
        $this->app->make(RunStore::class)->work(5);
        $run = $this->as('bram.castellan', 'GET', "runs/{$run['id']}")->json();
        self::assertSame(
            ['done', 4, 2, ['fired', 'silent', 'fired', 'refused']],
            [$run['status'], $run['done'], $run['fired'], array_column($run['results'], 'result')],
        );
        self::assertSame(2, DB::table('messages')->count());
        // Within three days the guard holds it back, also by hand.
        $this->as(
            'bram.castellan',
            'POST',
            "rules/{$rule}/run",
            ['recordType' => 'ticket', 'records' => [$ids[0]]],
        )->assertJsonPath('results.0.result', 'silent');
        $this->assertRefused(
            $this->as('bram.castellan', 'POST', "rules/{$rule}/run", ['recordType' => 'customer', 'records' => [1]]),
            409,
            'not_runnable',
        );
    }

    public function test_what_is_kept_once_changes_for_every_rule(): void
    {
        $named = $this->as(
            'ines.okafor',
            'POST',
            'named-conditions',
            [
                'recordType' => 'customer', 'name' => 'Big',
                'file' => ['kind' => 'all', 'of' => [['kind' => 'at_least', 'field' => 'yearly_value', 'value' => '5000']]],
            ],
        )->assertCreated()->json();
        $rule = $this->inForce([
            'name' => 'R', 'on' => 'customer', 'when' => ['kind' => 'created_or_changed'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'named', 'name' => 'Big']]], 'fires' => ['kind' => 'becomes_true'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'x', 'due' => null]],
        ]);
        self::assertSame([], $this->created('customer', ['name' => 'A', 'yearly_value' => '4000'])['fired']);
        $this->as(
            'ines.okafor',
            'PUT',
            "named-conditions/{$named['id']}",
            ['version' => 1, 'name' => 'Big', 'file' => ['kind' => 'all', 'of' => [['kind' => 'ticked', 'field' => 'key_account']]]],
        )->assertOk();
        $record = $this->created('customer', ['name' => 'B', 'yearly_value' => '9000'])['record'];
        self::assertCount(1, $this->change($record, ['key_account' => true])['fired'], 'the rule watches what the condition reads now');
        $this->assertRefused($this->as('ines.okafor', 'DELETE', "named-conditions/{$named['id']}"), 409, 'in_use');
        $this->assertRefused(
            $this->as(
                'ines.okafor',
                'PUT',
                "named-conditions/{$named['id']}",
                ['version' => 1, 'name' => 'Big', 'file' => ['kind' => 'all', 'of' => []]],
            ),
            409,
            'stale_version',
        );
        $copy = $this->as('ines.okafor', 'POST', "rules/{$rule}/copy", ['on' => 'ticket'])->assertCreated()->json();
        self::assertSame(
            ['ticket', 'draft', ['unknown_named']],
            [$copy['on'], $copy['status'], array_column($copy['reading']['problems'], 'code')],
        );
    }

    public function test_a_rule_whose_field_value_is_gone_is_marked_and_does_no_harm(): void
    {
        $rule = $this->inForce([
            'name' => 'R', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'topic', 'value' => 'visit']]],
            'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'x', 'due' => null]],
        ]);
        $row = DB::table('record_types')->where('name', 'ticket')->value('definition');
        $definition = json_decode($row, true);
        unset($definition['fields']['topic']['choices']['visit']);
        DB::table('record_types')->where('name', 'ticket')->update(['definition' => json_encode($definition)]);
        $this->forgetEverything();
        $this->clockAt(self::NOW);
        self::assertSame([], $this->ticket(['topic' => 'health'])['fired']);
        $listed = array_values(array_filter(
            $this->as('ines.okafor', 'GET', 'rules')->json(),
            static fn (array $one): bool => $one['id'] === $rule,
        ))[0];
        self::assertStringContainsString('Topic does not offer ‘visit’', (string) $listed['broken']);
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'paused'])->assertOk();
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'in_force']),
            422,
            'unfinished_rule',
            '/onlyIf/of/0/value',
        );
    }

    public function test_a_deleted_record_comes_back_as_it_was(): void
    {
        $ticket = $this->ticket(['tags' => ['vip'], 'cost' => '12.50', 'notes' => "two\nlines"])['record'];
        $this->assertRefused($this->as('bram.castellan', 'DELETE', "records/ticket/{$ticket['id']}?version=9"), 409, 'stale_version');
        $this->as('bram.castellan', 'DELETE', "records/ticket/{$ticket['id']}?version=1")->assertOk();
        $this->as('bram.castellan', 'GET', "records/ticket/{$ticket['id']}")->assertNotFound();
        $back = $this->as('bram.castellan', 'POST', "records/ticket/{$ticket['id']}/restore")->assertOk()->json('record');
        self::assertSame(array_diff_key($ticket['values'], ['updated_at' => 1]), array_diff_key($back['values'], ['updated_at' => 1]));
        $this->assertRefused($this->as('bram.castellan', 'POST', "records/ticket/{$ticket['id']}/restore"), 409, 'not_deleted');
    }
}
