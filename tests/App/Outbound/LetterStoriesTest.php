<?php

declare(strict_types=1);

namespace Tests\App\Outbound;

use App\StandIn\Eml;
use App\StandIn\MailRoom;
use App\Work\Outbound\OutboxRelay;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\Delivers;
use Tests\App\Support\TimeTestCase;

/** Letters as they arrive: lists with their tables, what changed in words, lines that stay lines, and slow or odd mail servers. */
final class LetterStoriesTest extends TimeTestCase
{
    use Delivers;

    private const LIST = [
        'name' => 'What falls due', 'on' => 'ticket', 'when' => [
            'kind' => 'timetable', 'rrule' => 'FREQ=DAILY', 'time' => '07:30', 'from' => '2026-11-02', 'per' => ['kind' => 'owner'],
        ],
        'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'status', 'value' => 'closed']],
        ], 'fires' => ['kind' => 'every_time'],
    ];

    private const TELL = [
        'name' => 'Tell the creator', 'on' => 'ticket', 'when' => ['kind' => 'changed'], 'fires' => ['kind' => 'every_time'], 'lines' => [
            [
                'kind' => 'send_message', 'to' => [['kind' => 'person', 'person' => ['kind' => 'creator']]],
                'subject' => '{changed.by} changed {number}: {changes}',
                'body' => '<p><span data-merge="changed.by">x</span>, <span data-merge="changed.at">x</span>:<br><span '
                    .'data-merge="changes">x</span></p>',
            ],
            ['kind' => 'comment', 'text' => "Priority was {was.priority}.\n{changes}"],
            ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look: {changes}', 'notes' => 'By {changed.by}', 'due' => null],
        ],
    ];

    public function test_a_list_of_several_sorts_arrives_as_tables_with_links(): void
    {
        $customer = $this->customer()['id'];
        $bram = $this->person('bram.castellan')->id;
        foreach (['2026-11-20' => 'Late <one>', '2026-11-25' => 'For today', '2026-11-27' => 'Soon',
            '2027-03-01' => 'Far'] as $due => $subject) {
            $tickets[$subject] = $this->ticket(['customer' => $customer, 'subject' => $subject, 'due' => $due])['record']['id'];
        }
        $agreement = $this->created(
            'agreement',
            ['title' => 'Care of the lobby', 'customer' => $customer, 'status' => 'running', 'end' => '2026-11-26', 'owner' => $bram],
        )['record']['id'];
        $this->inForce([
            'name' => 'Task', 'on' => 'customer', 'when' => ['kind' => 'changed', 'fields' => ['plan']],
            'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'bram.castellan'], 'title' => 'Ring them',
                    'due' => ['amount' => 1, 'unit' => 'day'],
                ],
            ],
        ]);
        $this->change($this->now('customer', $customer), ['plan' => 'full_care']);
        $this->inForce(self::LIST + ['lines' => [['kind' => 'send_list', 'subject' => 'Your day', 'body' => 'Good morning',
            'columns' => ['subject', 'customer.name'], 'by' => 'due', 'days' => 3, 'tasks' => true,
            'and' => [['on' => 'agreement', 'per' => ['kind' => 'owner'],
                'onlyIf' => ['kind' => 'is', 'field' => 'status', 'value' => 'running'], 'columns' => ['title', 'end'], 'by' => 'end']]]]]);
        $this->passTo('2026-11-25T07:00:00Z');

        $messages = DB::table('messages')->get();
        self::assertSame(
            [$bram],
            DB::table('guard_keys')->where('record_type', 'person')->pluck('record_id')->map(intval(...))->all(),
            'whoever has nothing gets nothing',
        );
        $raw = $this->delivered((int) $messages[0]->id);
        $letter = Eml::read($raw);
        $page = new \DOMDocument;
        $page->loadHTML($letter->html(), LIBXML_NOERROR);
        $find = static fn (string $path): array => array_map(
            static fn (\DOMNode $node): string => trim($node->textContent),
            iterator_to_array((new \DOMXPath($page))->query($path) ?: []),
        );
        self::assertSame(['Late (1)', 'Today (2)', 'Next 3 days (2)'], array_values(array_filter($find('//h3'))));
        self::assertSame(['Number', 'Subject', 'Customer › Name'], array_slice($find('//table[1]//th'), 0, 3));
        self::assertContains('Late <one>', $find('//td'));
        self::assertNotContains('Far', $find('//td'));
        self::assertContains('Care of the lobby', $find('//td'));
        self::assertContains('Ring them', $find('//td'));
        $links = array_map(
            static fn (\DOMNode $node): string => $node->nodeValue ?? '',
            iterator_to_array((new \DOMXPath($page))->query('//td/a/@href') ?: []),
        );
        self::assertContains(config('app.url')."/records/ticket/{$tickets['Late <one>']}", $links);
        self::assertContains(config('app.url')."/records/agreement/{$agreement}", $links);
        self::assertStringContainsString('Late <one>', $letter->text());
        self::assertStringContainsString('Ring them', $letter->text());
        // The same on the shelf of the mail room, where it is shown.
        $this->app->make(MailRoom::class)->takeMail($raw);
        $shelf = $this->as('ines.okafor', 'GET', 'mail-room/'.DB::table('mail_room')->max('id'))->assertOk()->json('html');
        self::assertSame(substr_count($letter->html(), '<tr>'), substr_count($shelf, '<tr>'));
        self::assertStringContainsString("/records/ticket/{$tickets['Soon']}", $shelf);
    }

    public function test_a_list_goes_by_each_persons_own_clock(): void
    {
        $this->as(
            'ines.okafor',
            'POST',
            'calendars',
            [
                'name' => 'Quayside', 'timeZone' => 'Europe/Lisbon', 'hours' => ['3' => [['09:00', '17:00']]], 'holidays' => [],
                'company' => false, 'teams' => [$this->person('bram.castellan')->team], 'people' => [],
            ],
        )->assertCreated();
        $this->ticket(['due' => '2026-11-20']);
        $this->ticket(['due' => '2026-11-20', 'owner' => $this->person('ines.okafor')->id]);
        $this->inForce(
            array_replace_recursive(self::LIST, ['when' => ['clock' => 'person', 'workingDays' => true]]) + [
                'lines' => [['kind' => 'send_list', 'subject' => 'Late', 'columns' => ['subject'], 'by' => 'due', 'days' => 0]],
            ],
        );
        $this->passTo('2026-11-27T00:00:00Z');

        // In Lisbon work is done on Wednesdays alone, and half past seven comes an hour later.
        $sent = array_map(
            static fn (object $row): string => "{$row->name} {$row->at}",
            DB::select(
                'SELECT p.name, k.at FROM guard_keys k JOIN people p ON p.id = k.record_id WHERE k.record_type = ? ORDER BY k.at',
                ['person'],
            ),
        );
        self::assertSame(
            ['Ines Okafor 2026-11-25 06:30:00', 'Bram Castellan 2026-11-25 07:30:00', 'Ines Okafor 2026-11-26 06:30:00'],
            $sent,
        );
    }

    public function test_what_changed_is_told_in_words_in_every_text(): void
    {
        $this->inForce(self::TELL);
        $ticket = $this->ticket(['notes' => "One\nTwo"])['record'];
        $saved = $this->change($ticket, ['priority' => 'urgent', 'hours' => '2'], 'lena.abara');
        $message = DB::table('messages')->latest('id')->first();
        self::assertSame("Lena Abara changed {$ticket['number']}: Priority: Normal → Urgent, Hours spent: empty → 2.00", $message->subject);
        $letter = Eml::read($this->delivered((int) $message->id));
        self::assertStringContainsString('Priority: Normal → Urgent<br />', str_replace(["\r", "\n"], '', $letter->html()));
        self::assertSame(
            "Lena Abara, 24 Nov 2026 09:40:\nPriority: Normal → Urgent\nHours spent: empty → 2.00",
            str_replace("\r", '', $letter->text()),
        );
        self::assertSame(
            "Priority was Normal.\nPriority: Normal → Urgent\nHours spent: empty → 2.00",
            DB::table('comments')->value('text'),
        );
        self::assertSame(
            ['Look: Priority: Normal → Urgent, Hours spent: empty → 2.00', 'By Lena Abara'],
            array_values((array) DB::selectOne('SELECT title, notes FROM tasks')),
        );
        self::assertSame([], $this->as('ines.okafor', 'GET', "ledger/{$saved['fired'][0]['entry']}")->json('entry.data.did.0.missing'));
        // A rehearsal tells the same, and so does the preview, of the last change there was.
        $played = $this->as(
            'ines.okafor',
            'POST',
            'rehearse',
            [
                'file' => self::TELL, 'record' => ['id' => $ticket['id']],
                'opening' => ['kind' => 'changed', 'at' => '2026-11-24T09:00:00Z', 'set' => ['status' => 'waiting']],
            ],
        )->assertOk()->json();
        self::assertStringContainsString(
            'Status: Open → Waiting on customer',
            json_encode($played, JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR),
        );
        self::assertStringContainsString(
            'Priority: Normal → Urgent',
            $this->as(
                'ines.okafor',
                'POST',
                'messages/preview',
                ['on' => 'ticket', 'line' => self::TELL['lines'][0], 'record' => $ticket['id']],
            )->assertOk()->json('html'),
        );
    }

    public function test_a_later_line_tells_the_change_that_began_its_run(): void
    {
        $this->inForce(array_replace_recursive(
            self::TELL,
            [
                'lines' => [
                    ['at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'day']], [],
                    ['to' => ['kind' => 'doer'], 'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day']],
                ],
            ],
        ));
        $ticket = $this->change($this->ticket()['record'], ['priority' => 'high'], 'lena.abara')['record'];
        $this->passTo('2026-11-28T00:00:00Z');
        self::assertSame("Lena Abara changed {$ticket['number']}: Priority: Normal → High", DB::table('messages')->value('subject'));
        self::assertSame(
            [$this->person('lena.abara')->id, 'Look: Priority: Normal → High'],
            [(int) DB::table('tasks')->value('assignee_id'), DB::table('tasks')->value('title')],
        );
    }

    public function test_long_text_keeps_its_lines_and_a_letter_stands_on_the_contacts_account(): void
    {
        $this->inForce(['name' => 'Write', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'S',
                    'body' => '<p>You wrote: <span data-merge="notes">x</span></p>',
                ],
            ]]);
        $ticket = $this->written(['notes' => "First <line>\nSecond"]);
        $letter = Eml::read($this->delivered((int) DB::table('messages')->value('id')));
        self::assertStringContainsString('First &lt;line&gt;<br />', $letter->html());
        self::assertSame("You wrote: First <line>\nSecond", str_replace("\r", '', $letter->text()));
        $contact = DB::table('records_contact')->value('id');
        $account = $this->as('ines.okafor', 'GET', "records/contact/{$contact}/account")->json('entries');
        self::assertSame(
            [['fired', 'ticket', $ticket['number']], ['created', 'contact', 'P-0001']],
            array_map(
                static fn (array $entry): array => [
                    $entry['kind'], $entry['recordType'], str_starts_with($entry['recordNumber'], 'T') ? $entry['recordNumber'] : 'P-0001',
                ],
                $account,
            ),
        );
    }

    public function test_a_letter_that_was_taken_without_an_answer_is_tried_a_few_times_and_the_ledger_says_so(): void
    {
        $this->inForce([
            'name' => 'Write', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'send_message', 'to' => [['kind' => 'address', 'address' => 'a@hotel.example']], 'subject' => 'S',
                    'body' => '<p>B</p>',
                ],
            ],
        ]);
        $ticket = $this->ticket()['record'];
        [$server, $port] = $this->oddServer('hangs-up');
        config(['ledger.mail.dsn' => "smtp://127.0.0.1:{$port}?auto_tls=false"]);
        for ($round = 0; $round < 6; $round++) {
            DB::table('messages')->update(['next_try_at' => '2020-01-01']);
            $this->app->make(OutboxRelay::class)->work(5);
        }
        self::assertSame(3, substr_count($server->getOutput(), 'letter'));
        $server->stop();
        self::assertSame(['failed', 3, 3], array_values((array) DB::selectOne('SELECT status, tries, unsure FROM messages')));
        $entry = $this->as('ines.okafor', 'GET', "records/ticket/{$ticket['id']}/account")->json('entries.0');
        self::assertSame(['unsure', 3, false], [$entry['kind'], $entry['data']['times'], $entry['data']['delivered']]);
    }

    public function test_a_slow_server_gets_each_letter_once_and_who_lost_the_lease_sends_nothing(): void
    {
        $this->inForce([
            'name' => 'Write', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                [
                    'kind' => 'send_message', 'to' => [['kind' => 'address', 'address' => 'a@hotel.example']], 'subject' => 'S',
                    'body' => '<p>B</p>',
                ],
            ],
        ]);
        $this->ticket();
        $this->ticket();
        [$server, $port] = $this->oddServer('slow', '0.2');
        config(['ledger.mail.dsn' => "smtp://127.0.0.1:{$port}?auto_tls=false"]);
        self::assertSame(2, $this->app->make(OutboxRelay::class)->work(2));
        self::assertSame(['delivered', 'delivered'], DB::table('messages')->pluck('status')->all());
        // While one letter is in hand the next is free for another sender.
        $this->ticket();
        $this->ticket();
        $lease = new \ReflectionMethod(OutboxRelay::class, 'lease');
        [$one, $other] = [$this->app->make(OutboxRelay::class), $this->app->make(OutboxRelay::class)];
        self::assertNotSame($lease->invoke($one)->id, ($second = $lease->invoke($other))->id);
        self::assertNull($lease->invoke($this->app->make(OutboxRelay::class)));
        DB::table('messages')->where('id', $second->id)->update(['leased_by' => 'somebody else']);
        (new \ReflectionProperty(OutboxRelay::class, 'renewedAt'))->setValue($other, 0);
        (new \ReflectionMethod(OutboxRelay::class, 'deliver'))->invoke($other, $second);
        self::assertSame(
            ['waiting', 'somebody else'],
            array_values((array) DB::selectOne('SELECT status, leased_by FROM messages WHERE id = ?', [$second->id])),
        );
        self::assertSame(2, substr_count($server->getOutput(), 'letter'));
        $server->stop();
    }
}
