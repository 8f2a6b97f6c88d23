<?php

declare(strict_types=1);

namespace Tests\App\Timing;

use App\Store\Actor;
use App\Store\Records\RecordEvents;
use App\Store\Types\SchemaStore;
use App\Work\Timing\LineWorker;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** Lines that come later: at their times, in order, once, until something ends them; moved when their date moves. */
final class LinesInTimeTest extends TimeTestCase
{
    public function test_the_chase_runs_its_whole_life(): void
    {
        $this->inForce(self::CHASE);
        $ticket = $this->written();
        $this->change($ticket, ['status' => 'waiting']);
        self::assertSame(['First'], $this->sent($ticket['id']));
        self::assertSame(
            ['1/1' => '2026-11-27 08:40:00', '2/1' => '2026-11-29 08:00:00', '3/1' => '2026-12-02 08:40:00'],
            $this->lines($ticket['id']),
        );
        $this->passTo('2026-11-27T08:39:00Z');
        self::assertSame(['First'], $this->sent($ticket['id']));
        $this->passTo('2026-12-10T00:00:00Z');
        self::assertSame(['First', 'Second', 'Last'], $this->sent($ticket['id']));
        self::assertSame('closed', $this->now('ticket', $ticket['id'])['values']['status']);
        self::assertSame(['1/1' => 'inked', '2/1' => 'inked', '3/1' => 'inked'], $this->lines($ticket['id']));
        self::assertSame('over', DB::table('rule_runs')->value('status'));
        $line = DB::table('entries')->where('kind', 'line')->orderBy('id')->first();
        self::assertSame(DB::table('entries')->where('kind', 'fired')->value('id'), $line->cause_id);
        self::assertSame('2026-11-27 08:40:00', $line->at);
        // The whole life once more, after it is opened and waits again.
        $this->change($this->change($this->now('ticket', $ticket['id']), ['status' => 'open'])['record'], ['status' => 'waiting']);
        self::assertCount(4, $this->sent($ticket['id']));
        self::assertSame(2, DB::table('rule_runs')->count());
    }

    public function test_an_answer_in_the_middle_strikes_out_the_rest_and_says_why(): void
    {
        $this->inForce(self::CHASE);
        $ticket = $this->written();
        $this->change($ticket, ['status' => 'waiting']);
        $this->passTo('2026-11-28T08:00:00Z');
        $type = $this->app->make(SchemaStore::class)->schema()->types['ticket'];
        $this->app->make(RecordEvents::class)->reply(
            $type,
            $ticket['id'],
            'It is fine now.',
            'marit@brine.example',
            new Actor(null),
        );
        $because = 'struck: until it gets a reply';
        self::assertSame(['1/1' => 'inked', '2/1' => $because, '3/1' => $because], $this->lines($ticket['id']));
        $this->passTo('2026-12-20T08:00:00Z');
        self::assertSame(['First', 'Second'], $this->sent($ticket['id']));
        self::assertSame('waiting', $this->now('ticket', $ticket['id'])['values']['status']);
        $struck = DB::table('entries')->where('kind', 'struck')->first();
        self::assertSame(DB::table('entries')->where('kind', 'reply')->value('id'), $struck->cause_id);
        self::assertCount(2, json_decode($struck->data, true)['lines']);
    }

    public function test_lines_move_with_their_date_and_wait_while_it_is_empty(): void
    {
        $this->inForce(['name' => 'Before it is due', 'on' => 'ticket', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'once_per_record'], 'lines' => [
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => '{subject} is due',
                    'at' => ['kind' => 'date', 'field' => 'due', 'amount' => -2, 'unit' => 'working_day', 'time' => '09:00'],
                ],
            ]]);
        $ticket = $this->ticket(['due' => '2026-12-08'])['record'];
        self::assertSame(['0/1' => '2026-12-04 08:00:00'], $this->lines($ticket['id']));
        $moved = $this->change($ticket, ['due' => '2026-12-15']);
        self::assertSame(['0/1' => '2026-12-11 08:00:00'], $this->lines($ticket['id']));
        $entry = DB::table('entries')->where('kind', 'retimed')->first();
        self::assertSame([$moved['entry'], 'Due moved'], [$entry->cause_id, json_decode($entry->data, true)['because']]);
        $this->passTo('2026-12-05T08:00:00Z');
        self::assertSame([], $this->sent($ticket['id']));
        $emptied = $this->change($moved['record'], ['due' => null])['record'];
        self::assertSame(['0/1' => ''], $this->lines($ticket['id']));
        $this->change($emptied, ['due' => '2026-12-18']);
        $this->passTo('2026-12-17T08:00:00Z');
        self::assertSame(['Ficus wall wilting is due'], $this->sent($ticket['id']));
    }

    public function test_a_line_waits_for_a_task_or_comes_when_it_is_late(): void
    {
        $this->inForce(['name' => 'Call first', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'],
            'lines' => [
                [
                    'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Call',
                    'due' => ['amount' => 1, 'unit' => 'working_day'],
                    'key' => 'call',
                ],
                [
                    'kind' => 'comment', 'text' => 'called',
                    'at' => [
                        'kind' => 'done', 'line' => 'call', 'amount' => 0, 'unit' => 'day', 'timeOut' => ['amount' => 10, 'unit' => 'day'],
                        'then' => 'leave_out',
                    ],
                ],
                [
                    'kind' => 'remind', 'to' => ['kind' => 'manager', 'of' => ['kind' => 'owner']], 'text' => 'late',
                    'at' => ['kind' => 'late', 'line' => 'call', 'amount' => 1, 'unit' => 'working_day'],
                ],
            ]]);
        $done = $this->ticket()['record'];
        $late = $this->ticket()['record'];
        self::assertSame(['1/1' => '2026-12-04 08:40:00', '2/1' => '2026-11-26 08:40:00'], $this->lines($done['id']));
        $task = DB::table('tasks')->where('record_id', $done['id'])->value('id');
        $this->as('bram.castellan', 'POST', "tasks/{$task}/complete")->assertOk();
        self::assertSame(['1/1' => '2026-11-24 08:40:00', '2/1' => 'struck: the task was done'], $this->lines($done['id']));
        $this->as('bram.castellan', 'POST', "tasks/{$task}/reopen")->assertOk();
        self::assertSame('2026-11-26 08:40:00', $this->lines($done['id'])['2/1']);
        $this->as('bram.castellan', 'POST', "tasks/{$task}/complete")->assertOk();
        // A later date of the task moves what hangs on it.
        $other = DB::table('tasks')->where('record_id', $late['id'])->value('id');
        $this->as('priya.lindqvist', 'PATCH', 'tasks', ['ids' => [$other], 'dueAt' => '2026-11-26T16:00:00Z'])->assertOk();
        self::assertSame('2026-11-27 16:00:00', $this->lines($late['id'])['2/1']);
        $this->passTo('2026-12-31T00:00:00Z');
        self::assertSame(['1/1' => 'inked', '2/1' => 'struck: the task was done'], $this->lines($done['id']));
        self::assertSame(['1/1' => 'struck: the task was not done in time', '2/1' => 'inked'], $this->lines($late['id']));
        self::assertSame(
            [1, 0],
            [
                DB::table('comments')->where('record_id', $done['id'])->count(),
                DB::table('comments')->where('record_id', $late['id'])->count(),
            ],
        );
    }

    public function test_every_so_often_until_and_at_most_so_many_times(): void
    {
        $this->inForce(['name' => 'Again and again', 'on' => 'ticket', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'once_per_record'], 'lines' => [
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Look',
                    'at' => ['kind' => 'every', 'amount' => 1, 'unit' => 'week', 'times' => 3],
                ],
            ], 'until' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']]);
        $one = $this->ticket()['record'];
        $two = $this->ticket()['record'];
        $this->passTo('2026-12-02T08:40:00Z');
        $this->change($two, ['status' => 'closed']);
        $this->passTo('2027-02-01T08:40:00Z');
        self::assertSame(['Look', 'Look', 'Look'], $this->sent($one['id']));
        self::assertSame(['Look'], $this->sent($two['id']));
        // Three weeks of downtime make up for nothing: one comes, and the rest of its time has gone.
        $three = $this->ticket()['record'];
        $this->clockAt('2027-02-17T08:40:00Z');
        $this->workNow();
        self::assertSame(['Look'], $this->sent($three['id']));
        $this->passTo('2027-03-30T00:00:00Z');
        self::assertSame(['Look', 'Look'], $this->sent($three['id']));
    }

    public function test_every_so_often_without_a_most_goes_on_until_it_ends(): void
    {
        $daily = ['kind' => 'every', 'amount' => 1, 'unit' => 'day'];
        $rule = ['name' => 'On and on', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'],
            'lines' => [['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Look', 'at' => $daily]]];
        $draft = $this->as('ines.okafor', 'POST', 'rules', ['file' => $rule])->assertCreated()->json();
        $this->assertRefused($this->as('ines.okafor', 'POST', "rules/{$draft['id']}/publish", [
            'version' => $draft['draftVersion'],
        ]), 422, 'unfinished_rule', '/until');
        $this->inForce($rule + ['until' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']]);
        $one = $this->ticket()['record'];
        $this->passTo('2027-03-03T09:40:00Z');
        $sent = count($this->sent($one['id']));
        $since = new \DateTimeImmutable($one['values']['created_at']);
        self::assertSame((new \DateTimeImmutable('2027-03-03T09:40:00Z'))->diff($since)->days, $sent);
        $this->change($one, ['status' => 'closed']);
        $this->passTo('2027-04-01T09:40:00Z');
        self::assertCount($sent, $this->sent($one['id']), 'what ended it has struck out the rest');
    }

    public function test_what_is_too_late_is_left_out_and_its_own_condition_is_read_when_due(): void
    {
        $this->inForce(['name' => 'Later', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'],
            'lines' => [
                [
                    'kind' => 'comment', 'text' => 'one', 'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
                    'tooLate' => ['amount' => 2, 'unit' => 'hour'],
                ],
                [
                    'kind' => 'comment', 'text' => 'two', 'at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'day'],
                    'onlyIf' => ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
                ],
                [
                    'kind' => 'comment', 'text' => 'three', 'at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'day'],
                    'onlyIf' => ['kind' => 'is', 'field' => 'priority', 'value' => 'low'],
                ],
            ]]);
        $ticket = $this->ticket()['record'];
        $this->change($ticket, ['priority' => 'low']);
        $this->clockAt('2026-12-01T08:40:00Z');
        $this->workNow();
        self::assertSame(['three'], DB::table('comments')->where('record_id', $ticket['id'])->pluck('text')->all());
        self::assertSame('late', $this->lines($ticket['id'])['0/1']);
        self::assertSame(['created', 'fired', 'changed', 'too_late', 'line', 'line', 'comment'], $this->kinds($ticket['id']));
    }

    public function test_quiet_hours_and_caps_hold_lines_back_and_say_so(): void
    {
        $line = static fn (string $subject, ?array $at): array => [
            'kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => $subject, 'body' => '<p>Hello</p>',
        ] + ($at === null ? [] : ['at' => $at]);
        $this->inForce(['name' => 'Quietly', 'on' => 'ticket', 'when' => [
            'kind' => 'changed', 'fields' => ['hours'],
        ], 'fires' => ['kind' => 'every_time'], 'lines' => [
            $line('now', null), $line('at night', ['kind' => 'after', 'amount' => 14, 'unit' => 'hour']),
        ], 'never' => ['outside' => ['from' => '08:00', 'to' => '18:00', 'workingDays' => true],
            'moreThan' => ['messages' => 2, 'amount' => 1, 'unit' => 'week', 'then' => 'wait']]]);
        $ticket = $this->written();
        $this->clockAt('2026-11-27T20:00:00Z');
        $ticket = $this->change($ticket, ['hours' => '1'])['record'];
        // Friday evening: both come on Monday morning.
        self::assertSame([], $this->sent($ticket['id']));
        self::assertSame(['0/1' => '2026-11-30 07:00:00', '1/1' => '2026-11-30 07:00:00'], $this->lines($ticket['id']));
        $account = fn (): array => $this->as('ines.okafor', 'GET', "records/ticket/{$ticket['id']}/account")->assertOk()->json();
        self::assertEqualsCanonicalizing(
            [['2026-11-30T07:00:00Z', '2026-11-27T20:00:00Z'], ['2026-11-30T07:00:00Z', '2026-11-28T10:00:00Z']],
            array_map(static fn (array $line): array => [$line['due'], $line['meant']], $account()['ahead']),
            'each says for when it was meant',
        );
        $this->passTo('2026-11-30T09:00:00Z');
        self::assertSame(['now', 'at night'], $this->sent($ticket['id']));
        self::assertStringContainsString(
            'Meant for 28 Nov 2026 11:00, which quiet hours put off.',
            implode("\n", array_column($account()['entries'], 'detail')),
        );
        // A third message within the week waits until the week is over.
        $this->change($this->now('ticket', $ticket['id']), ['hours' => '2']);
        self::assertCount(2, $this->sent($ticket['id']));
        $fired = json_decode((string) DB::table('entries')->where('kind', 'fired')->orderByDesc('id')->value('data'), true);
        self::assertSame('waits', $fired['did'][0]['kind']);
        $this->passTo('2026-12-07T06:59:00Z');
        self::assertCount(2, $this->sent($ticket['id']));
        $this->passTo('2026-12-07T08:00:00Z');
        self::assertSame(['now', 'at night', 'now', 'at night'], $this->sent($ticket['id']));
    }

    public function test_a_ladder_is_climbed_rung_by_rung_until_the_work_is_done(): void
    {
        $ladder = ['name' => 'Visit overdue', 'rungs' => [
            ['to' => ['kind' => 'owner'], 'do' => ['tell']],
            [
                'after' => ['amount' => 1, 'unit' => 'working_day'], 'to' => ['kind' => 'manager', 'of' => ['kind' => 'owner']],
                'do' => ['tell', 'raise'],
            ],
            [
                'after' => ['amount' => 2, 'unit' => 'working_day'],
                'to' => ['kind' => 'manager', 'of' => ['kind' => 'manager', 'of' => ['kind' => 'owner']]], 'do' => ['tell', 'reassign'],
            ],
        ]];
        $kept = $this->as('ines.okafor', 'POST', 'ladders', $ladder)->assertCreated()->json();
        self::assertSame('after 1 working day it tells the owner’s manager and raises the priority', $kept['said'][1]);
        $this->inForce(['name' => 'Overdue', 'on' => 'ticket', 'when' => [
            'kind' => 'date', 'field' => 'due', 'amount' => 1, 'unit' => 'day', 'time' => '10:00',
        ], 'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'status', 'value' => 'closed']],
        ],
            'fires' => ['kind' => 'once_per_value', 'field' => 'due'], 'lines' => [['kind' => 'escalate', 'ladder' => 'Visit overdue']],
            'until' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed']]);
        $late = $this->ticket(['due' => '2026-11-26'])['record'];
        $done = $this->ticket(['due' => '2026-11-26'])['record'];
        $closed = $this->ticket(['due' => '2026-11-26', 'status' => 'closed'])['record'];
        $this->passTo('2026-11-29T00:00:00Z');
        $this->change($done, ['status' => 'closed']);
        $this->passTo('2026-12-20T00:00:00Z');
        self::assertSame(
            ['Rung 1 of 3: Ticket T-'.sprintf('%04d', $late['id']).', Ficus wall wilting'],
            array_slice($this->sent($late['id']), 0, 1),
        );
        self::assertCount(3, $this->sent($late['id']));
        self::assertCount(1, $this->sent($done['id']));
        self::assertCount(0, $this->sent($closed['id']));
        $now = $this->now('ticket', $late['id']);
        self::assertSame(['high', $this->person('tomas.weld')->id], [$now['values']['priority'], $now['values']['owner']]);
        // A ladder in use keeps its name, and stays.
        $this->assertRefused($this->as('ines.okafor', 'DELETE', "ladders/{$kept['id']}"), 409, 'in_use');
        $this->assertRefused(
            $this->as('ines.okafor', 'PUT', "ladders/{$kept['id']}", ['version' => 1, 'name' => 'Other'] + $ladder),
            409,
            'in_use',
            '/name',
        );
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', 'ladders', ['name' => 'Empty', 'rungs' => []]),
            422,
            'unfinished_ladder',
            '/rungs',
        );
        $this->as('ines.okafor', 'PUT', "ladders/{$kept['id']}", ['version' => 1] + $ladder)->assertOk();
    }

    public function test_people_hold_lines_let_them_go_on_strike_them_out_and_have_them_done(): void
    {
        $this->inForce(self::CHASE);
        $ticket = $this->written();
        $this->change($ticket, ['status' => 'waiting']);
        $ids = DB::table('scheduled_lines')->where('record_id', $ticket['id'])->orderBy('id')->pluck('id')->all();
        $this->assertRefused($this->as('bram.castellan', 'POST', "lines/{$ids[0]}/hold", ['why' => ' ']), 422, 'invalid_values', '/why');
        $this->as('bram.castellan', 'POST', "lines/{$ids[0]}/hold", ['why' => 'They called'])->assertNoContent();
        $this->assertRefused($this->as('bram.castellan', 'POST', "lines/{$ids[0]}/hold", ['why' => 'twice']), 409, 'wrong_state');
        $this->passTo('2026-11-28T08:00:00Z');
        self::assertSame(['First'], $this->sent($ticket['id']));
        $this->as('bram.castellan', 'POST', "lines/{$ids[1]}/now", ['why' => 'It is urgent'])->assertNoContent();
        self::assertSame(['First', 'Last'], $this->sent($ticket['id']));
        $entry = DB::table('entries')->where('kind', 'line')->first();
        self::assertSame(
            [$this->person('bram.castellan')->id, 'It is urgent', 'person'],
            [$entry->actor_id, json_decode($entry->data, true)['why'], $entry->via],
        );
        $this->as('bram.castellan', 'POST', "lines/{$ids[2]}/strike", ['why' => 'It stays open'])->assertNoContent();
        $this->as('bram.castellan', 'POST', "lines/{$ids[0]}/resume", ['why' => 'They did not keep their word'])->assertNoContent();
        $this->workNow();
        self::assertSame(['First', 'Last', 'Second'], $this->sent($ticket['id']));
        self::assertSame('over', DB::table('rule_runs')->value('status'));
        $this->assertRefused($this->as('bram.castellan', 'POST', "lines/{$ids[0]}/now", ['why' => 'again']), 409, 'wrong_state');
        $this->as('odile.march', 'POST', "lines/{$ids[0]}/hold", ['why' => 'may not'])->assertForbidden();
        self::assertSame(
            ['held', 'line', 'struck', 'resumed', 'line'],
            array_values(array_intersect($this->kinds($ticket['id']), ['held', 'line', 'struck', 'resumed'])),
        );
    }

    public function test_pausing_holds_what_is_pencilled_in_and_retiring_strikes_it_out(): void
    {
        $rule = $this->inForce(self::CHASE);
        $ticket = $this->written();
        $this->change($ticket, ['status' => 'waiting']);
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'paused'])->assertOk();
        $this->passTo('2026-11-28T08:00:00Z');
        self::assertSame(['First'], $this->sent($ticket['id']));
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'in_force'])->assertOk();
        $this->workNow();
        self::assertSame(['First', 'Second'], $this->sent($ticket['id']));
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'retired'])->assertOk();
        $this->passTo('2026-12-28T08:00:00Z');
        self::assertSame(['First', 'Second'], $this->sent($ticket['id']));
        self::assertSame('struck: the rule was retired', $this->lines($ticket['id'])['3/1']);
    }

    public function test_a_rule_that_fires_again_begins_anew_and_a_deleted_record_is_left_alone(): void
    {
        $this->inForce(
            [
                'onlyIf' => ['kind' => 'all', 'of' => []], 'fires' => ['kind' => 'every_time'],
                'when' => ['kind' => 'changed', 'fields' => ['hours']],
                'until' => ['kind' => 'is', 'field' => 'status', 'value' => 'closed'],
            ] + self::CHASE,
        );
        $ticket = $this->written();
        $ticket = $this->change($ticket, ['hours' => '1'])['record'];
        $this->passTo('2026-11-26T08:00:00Z');
        $ticket = $this->change($ticket, ['hours' => '2'])['record'];
        self::assertSame(3, DB::table('scheduled_lines')->where(['record_id' => $ticket['id'], 'status' => 'pencilled'])->count());
        self::assertSame(
            3,
            DB::table('scheduled_lines')->where([
                'record_id' => $ticket['id'], 'struck_because' => 'the rule fired again and began anew',
            ])->count(),
        );
        $this->as('ines.okafor', 'DELETE', "records/ticket/{$ticket['id']}?version={$ticket['version']}")->assertOk();
        self::assertSame(0, DB::table('scheduled_lines')->where(['record_id' => $ticket['id'], 'status' => 'pencilled'])->count());
        $this->passTo('2026-12-28T08:00:00Z');
        self::assertSame(0, $this->app->make(LineWorker::class)->work(10));
    }
}
