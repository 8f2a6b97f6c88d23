<?php

declare(strict_types=1);

namespace Tests\App\Ledger;

use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;
use Tests\Core\Support\Stories;

/** What a rule did can be taken back: its fields, its tasks, what it pencilled in. What was sent stays sent. */
final class ReversalTest extends TimeTestCase
{
    private const WATCH = ['name' => 'Watch', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => [
        'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']],
    ], 'fires' => ['kind' => 'becomes_true'], 'lines' => [
        [
            'kind' => 'set_fields',
            'set' => [
                ['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']],
                ['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'waiting']],
            ],
        ],
        ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null],
        ['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Now'],
        ['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Later', 'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day']],
    ]];

    public function test_an_entry_is_reversed_once_and_says_so(): void
    {
        $rule = $this->inForce(self::WATCH);
        $ticket = $this->urgent();
        $fired = $this->firedOn($ticket);
        $preview = $this->as('ines.okafor', 'POST', 'reversals/preview', ['entries' => [$fired]])->assertOk()->json();
        self::assertSame(
            [[$fired], 2, 1, 1, 1, []],
            [$preview['entries'], $preview['fields'], $preview['tasks'], $preview['lines'], $preview['sent'], $preview['conflicts']],
        );
        $entries = DB::table('entries')->count();
        $number = $this->as(
            'ines.okafor',
            'POST',
            'reversals',
            ['entries' => [$fired], 'why' => 'A mistake'],
        )->assertOk()->json('entries.0');
        $record = (array) DB::selectOne('SELECT review, status, priority FROM records_ticket WHERE id = ?', [$ticket]);
        self::assertSame(
            ['review' => null, 'status' => 'open', 'priority' => 'urgent'],
            $record,
            'what the rule set goes back, what the person set stays',
        );
        self::assertSame(['cancelled'], DB::table('tasks')->pluck('status')->all());
        self::assertSame(['struck: what pencilled it in was reversed'], array_values($this->lines($ticket)));
        self::assertSame(1, DB::table('messages')->count(), 'what was sent stays sent');
        $told = $this->as('ines.okafor', 'GET', "ledger/{$number}")->assertOk()->json('entry');
        self::assertSame(
            ['reversed', $fired, 'A mistake', ['Look'], 1, 1],
            [
                $told['kind'], $told['data']['of'], $told['data']['why'], $told['data']['tasks'], $told['data']['lines'],
                $told['data']['sent'],
            ],
        );
        self::assertSame($entries + 1, DB::table('entries')->count(), 'no rule answers a reversal');
        self::assertSame(
            [],
            $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$fired]])->json('entries'),
            'a second time there is nothing left to reverse',
        );
        $this->passTo('2026-12-20T00:00:00Z');
        self::assertSame(1, DB::table('messages')->count(), 'and what was pencilled in never comes');
        self::assertSame(
            [],
            $this->as(
                'ines.okafor',
                'POST',
                'reversals/preview',
                ['rule' => $rule, 'from' => '2026-01-01T00:00:00Z', 'until' => '2027-01-01T00:00:00Z'],
            )->json('entries'),
        );
        $task = (int) DB::table('tasks')->value('id');
        $this->as('ines.okafor', 'POST', "tasks/{$task}/complete")->assertStatus(409)->assertJsonPath(
            'detail',
            '“Look” was cancelled. Open it again first.',
        );
        $this->as('ines.okafor', 'PATCH', 'tasks', ['ids' => [$task], 'dueAt' => '2027-01-01T09:00:00Z'])->assertStatus(409);
        $this->as('ines.okafor', 'POST', "tasks/{$task}/reopen")->assertSuccessful();
        $this->as('ines.okafor', 'POST', "tasks/{$task}/complete")->assertSuccessful();
        $this->as('odile.march', 'POST', 'reversals', ['entries' => [$fired]])->assertForbidden();
    }

    public function test_a_field_that_somebody_has_changed_since_is_asked_about(): void
    {
        $this->inForce(self::WATCH);
        $ticket = $this->urgent();
        $fired = $this->firedOn($ticket);
        $this->becomes($ticket, ['status' => 'closed']);
        $conflicts = $this->as('ines.okafor', 'POST', 'reversals/preview', ['entries' => [$fired]])->json('conflicts');
        self::assertSame(
            [['Status', 'Open', 'Waiting on customer', 'Closed']],
            array_map(static fn (array $one): array => [$one['label'], $one['was'], $one['set'], $one['is']], $conflicts),
        );
        $number = $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$fired]])->json('entries.0');
        self::assertSame(
            ['closed', null],
            array_values((array) DB::selectOne('SELECT status, review FROM records_ticket WHERE id = ?', [$ticket])),
        );
        self::assertSame(['Status'], $this->as('ines.okafor', 'GET', "ledger/{$number}")->json('entry.data.kept'));
        // Wanted back all the same.
        $other = $this->urgent();
        $this->becomes($other, ['status' => 'closed']);
        $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$this->firedOn($other)], 'force' => true])->assertOk();
        self::assertSame('open', DB::table('records_ticket')->where('id', $other)->value('status'));
    }

    public function test_all_of_a_rule_in_a_span_goes_back_to_what_it_was(): void
    {
        $rule = $this->inForce(self::WATCH);
        $tickets = [];
        for ($count = 0; $count < 12; $count++) {
            $this->clockAt((new \DateTimeImmutable(self::NOW))->modify("+{$count} days")->format('c'));
            $tickets[] = $this->urgent();
        }
        $span = [
            'rule' => $rule, 'from' => (new \DateTimeImmutable(self::NOW))->modify('+5 days')->format('c'),
            'until' => '2027-01-01T00:00:00Z',
        ];
        $preview = $this->as('ines.okafor', 'POST', 'reversals/preview', $span)->json();
        self::assertSame([7, 14, 7], [count($preview['entries']), $preview['fields'], $preview['tasks']]);
        foreach (array_chunk($preview['entries'], 3) as $some) {
            $this->as('ines.okafor', 'POST', 'reversals', ['entries' => $some])->assertOk();
        }
        self::assertSame(5, DB::table('records_ticket')->where('review', 'needed')->count());
        self::assertSame(5, DB::table('tasks')->where('status', 'open')->count());
        $this->as('ines.okafor', 'POST', 'reversals/preview', ['rule' => $rule])->assertStatus(422);
        $this->as('ines.okafor', 'POST', 'reversals', ['entries' => range(1, 51)])->assertStatus(422);
    }

    public function test_what_it_wrote_on_other_records_goes_back_too(): void
    {
        $this->inForce(
            [
                'name' => 'Marks the customer',
                'lines' => [
                    [
                        'kind' => 'set_fields', 'on' => 'customer',
                        'set' => [['field' => 'key_account', 'to' => ['kind' => 'value', 'value' => true]]],
                    ],
                ],
            ] + self::WATCH,
        );
        $ticket = $this->urgent();
        $customer = (int) DB::table('records_ticket')->where('id', $ticket)->value('customer');
        self::assertSame(1, (int) DB::table('records_customer')->where('id', $customer)->value('key_account'));
        $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$this->firedOn($ticket)]])->assertOk();
        self::assertSame(0, (int) DB::table('records_customer')->where('id', $customer)->value('key_account'));
    }

    public function test_what_it_emptied_and_then_wrote_goes_back_to_the_first(): void
    {
        $plan = static fn (?string $to): array => [
            'kind' => 'set_fields', 'on' => 'customer',
            'set' => [['field' => 'plan', 'to' => $to === null ? ['kind' => 'clear'] : ['kind' => 'value', 'value' => $to]]],
        ];
        $this->inForce(['name' => 'Empties the plan', 'lines' => [$plan(null), $plan('basic')]] + self::WATCH);
        $customer = $this->customer('Quayside Clinic', 'full_care')['id'];
        $ticket = $this->ticket(['priority' => 'urgent', 'customer' => $customer])['record']['id'];
        self::assertSame('basic', DB::table('records_customer')->where('id', $customer)->value('plan'));
        $number = $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$this->firedOn($ticket)]])->assertOk()->json('entries.0');
        self::assertSame('full_care', DB::table('records_customer')->where('id', $customer)->value('plan'));
        $entry = $this->as('ines.okafor', 'GET', "ledger/{$number}")->json('entry');
        self::assertSame(
            ['ticket', $ticket],
            [$entry['recordType'], $entry['recordId']],
            'the reversal stands on the record that the rule answered',
        );
        self::assertArrayNotHasKey('kept', $entry['data']);
    }

    public function test_an_edit_is_reversed_like_what_a_rule_did(): void
    {
        $rule = $this->inForce(self::WATCH);
        $ticket = $this->ticket(['owner' => $this->person('ines.okafor')->id])['record'];
        $edit = (int) $this->change($ticket, ['priority' => 'urgent', 'subject' => 'Wilting fast'], 'lena.abara')['entry'];
        $this->assertRefused($this->as('bram.castellan', 'POST', 'reversals', ['entries' => [$edit]]), 403, 'not_allowed');
        $this->assertRefused(
            $this->as('lena.abara', 'POST', 'reversals', ['entries' => [$edit, $this->firedOn($ticket['id'])]]),
            403,
            'not_allowed',
        );
        self::assertSame(
            [[$edit], 2],
            array_values(array_intersect_key(
                $this->as('lena.abara', 'POST', 'reversals/preview', ['entries' => [$edit]])->json(),
                ['entries' => 1, 'fields' => 1],
            )),
        );
        $number = $this->as(
            'lena.abara',
            'POST',
            'reversals',
            ['entries' => [$edit], 'why' => 'The wrong ticket'],
        )->assertOk()->json('entries.0');
        $row = (array) DB::selectOne('SELECT priority, subject, status, review FROM records_ticket WHERE id = ?', [$ticket['id']]);
        self::assertSame(
            ['normal', 'Ficus wall wilting', 'waiting', 'needed'],
            array_values($row),
            'the edit goes back, what a rule made of it is a firing of its own',
        );
        self::assertSame(
            ['reversed', $edit, null],
            [($entry = $this->as('lena.abara', 'GET', "ledger/{$number}")->json('entry'))['kind'], $entry['data']['of'], $entry['rule']],
        );
        self::assertSame(1, DB::table('entries')->where(['rule_id' => $rule, 'kind' => 'fired'])->count(), 'no rule answers a reversal');
        foreach (['reversals', 'reversals/preview'] as $path) {
            $this->assertRefused($this->as('ines.okafor', 'POST', $path, ['entries' => [$edit, 999999999]]), 404, 'not_found');
        }
    }

    public function test_many_are_counted_with_a_handful_of_queries(): void
    {
        $rule = $this->inForce(self::WATCH);
        for ($count = 0; $count < 30; $count++) {
            $this->urgent();
        }
        $span = ['rule' => $rule, 'from' => '2026-11-01T00:00:00Z', 'until' => '2027-01-01T00:00:00Z'];
        DB::enableQueryLog();
        self::assertSame(60, $this->as('ines.okafor', 'POST', 'reversals/preview', $span)->json('fields'));
        self::assertLessThan(25, count(DB::getQueryLog()), 'however many there are');
        DB::disableQueryLog();
    }

    public function test_pages_are_told_apart_and_brought_back(): void
    {
        $rule = $this->inForce(self::WATCH);
        $next = ['onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'high']]]] + self::WATCH;
        $version = $this->as('ines.okafor', 'GET', "rules/{$rule}")->json('draftVersion');
        $this->as('ines.okafor', 'PUT', "rules/{$rule}/draft", ['version' => $version, 'file' => $next])->assertOk();
        $lines = $this->as('ines.okafor', 'GET', "rules/{$rule}/difference?from=1")->assertOk()->json();
        self::assertSame(
            ['gone' => '  Priority is Urgent', 'new' => '  Priority is High'],
            array_column(array_filter($lines, static fn (array $line): bool => $line['mark'] !== 'same'), 'text', 'mark'),
        );
        $published = $this->as('ines.okafor', 'POST', "rules/{$rule}/publish", ['version' => $version + 1, 'why' => 'Too many']);
        self::assertSame(200, $published->status(), (string) $published->getContent());
        $pages = $this->as('ines.okafor', 'GET', "rules/{$rule}/pages")->json();
        self::assertSame([[2, 'Too many'], [1, '']], array_map(static fn (array $page): array => [$page['number'], $page['why']], $pages));
        $back = $this->as(
            'ines.okafor',
            'POST',
            "rules/{$rule}/pages/1/back",
            ['version' => $this->as('ines.okafor', 'GET', "rules/{$rule}")->json('draftVersion')],
        )->assertOk()->json();
        self::assertSame([2, true, 'urgent'], [$back['page'], $back['hasDraft'], $back['file']['onlyIf']['of'][0]['value']]);
        $this->as('ines.okafor', 'GET', "rules/{$rule}/difference?from=9")->assertNotFound();
        $this->as('ines.okafor', 'POST', "rules/{$rule}/pages/9/back", ['version' => $back['draftVersion']])->assertNotFound();
    }

    public function test_why_and_why_not_at_any_moment(): void
    {
        $rule = $this->inForce(self::WATCH);
        $ticket = $this->ticket(['priority' => 'low'])['record']['id'];
        $this->clockAt('2026-11-26T08:00:00Z');
        $this->becomes($ticket, ['priority' => 'urgent']);
        $this->clockAt('2026-11-28T08:00:00Z');
        $this->becomes($ticket, ['subject' => 'Still wilting']);
        $reason = fn (string $at): string => $this->as(
            'ines.okafor',
            'GET',
            "records/ticket/{$ticket}/why?rule={$rule}&at=".urlencode($at),
        )->assertOk()->json('answers.0.verdict.reason');
        self::assertSame(
            ['conditions', 'fires', 'no_turn'],
            [$reason('2026-11-25T00:00:00Z'), $reason('2026-11-27T00:00:00Z'), $reason('2026-12-01T00:00:00Z')],
        );
        $this->as('ines.okafor', 'GET', "records/ticket/{$ticket}/why?at=2026-01-01T00:00:00Z")->assertNotFound();
        self::assertSame(
            [[$rule, 'Watch']],
            array_map(
                static fn (array $one): array => [$one['rule'], $one['name']],
                $this->as('ines.okafor', 'GET', 'schema/ticket/fields/review/rules')->assertOk()->json(),
            ),
        );
        self::assertSame([], $this->as('ines.okafor', 'GET', 'schema/ticket/fields/subject/rules')->json());
    }

    public function test_whatever_a_rule_did_to_a_record_can_be_taken_back(): void
    {
        $reversed = 0;
        for ($seed = 501; $seed <= 530; $seed++) {
            DB::beginTransaction();
            $reversed += $this->takenBack($seed) ? 1 : 0;
            DB::rollBack();
        }
        self::assertGreaterThan(12, $reversed);
    }

    private function takenBack(int $seed): bool
    {
        $this->forgetEverything();
        $schema = $this->app->make(SchemaStore::class)->schema();
        $customers = [$this->customer('One', 'basic')['id'], $this->customer('Two', 'full_care')['id']];
        $stories = new Stories(
            $seed,
            $schema,
            ['ines.okafor', 'edda.marlow'],
            ['customer' => $customers, 'contact' => [0], 'quote' => [0]],
        );
        do {
            $file = $stories->rule("Rule {$seed}");
        } while (preg_match('/contact|"refuse"|"related"|create_record/', (string) json_encode($file)) === 1);
        // Whatever else it asks, it answers this change.
        $file = [
            'when' => ['kind' => 'changed', 'fields' => ['hours']], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'every_time'],
        ] + $file;
        unset($file['until']);
        $this->inForce($file);
        $ticket = $this->ticket(['customer' => $customers[0], 'owner' => $this->person('ines.okafor')->id, 'cost' => '10'])['record']['id'];
        $this->becomes($ticket, ['hours' => '2']);
        $fired = $this->firedOn($ticket);
        if ($fired === 0) {
            return false;
        }
        $stamps = array_flip(['version', 'updated_at', 'updated_by']);
        $before = $this->as(
            'ines.okafor',
            'GET',
            "records/ticket/{$ticket}/then?entry=".(int) DB::table('entries')->where([
                'record_id' => $ticket, 'record_type' => 'ticket', 'kind' => 'changed',
            ])->min('id'),
        )->json('values');
        $this->as('ines.okafor', 'POST', 'reversals', ['entries' => [$fired]])->assertOk();
        $after = $this->as('ines.okafor', 'GET', "records/ticket/{$ticket}")->json('values');
        self::assertSame(array_diff_key($before, $stamps), array_diff_key($after, $stamps), "story {$seed}: ".json_encode($file));
        self::assertSame(0, DB::table('tasks')->where(['status' => 'open', 'entry_id' => $fired])->count());
        self::assertSame(
            0,
            DB::table('scheduled_lines')->where(['status' => 'pencilled', 'entry_id' => $fired])->whereNotNull('run_id')->count(),
        );

        return true;
    }

    private function urgent(): int
    {
        return $this->ticket(['priority' => 'urgent', 'status' => 'open', 'owner' => $this->person('ines.okafor')->id])['record']['id'];
    }

    private function firedOn(int $ticket): int
    {
        return (int) DB::table('entries')->where(['kind' => 'fired', 'record_id' => $ticket])->max('id');
    }
}
