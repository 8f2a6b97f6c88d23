<?php

declare(strict_types=1);

namespace Tests\App\Timing;

use App\Work\Timing\ClockTurner;
use App\Work\Timing\Sweep;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** What time promises: lines at one moment together, dates that are near already, runs by hand, and what is gone and comes back. */
final class TimeStoriesTest extends TimeTestCase
{
    private const NEAR = [
        'name' => 'Near', 'on' => 'ticket', 'when' => [
            'kind' => 'date', 'field' => 'due', 'amount' => -75, 'unit' => 'day', 'time' => '09:00',
        ],
        'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'open']],
        ], 'fires' => ['kind' => 'every_time'],
        'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Prepare', 'due' => null]],
    ];

    public function test_lines_at_one_moment_are_done_together_in_the_order_written(): void
    {
        $after = ['kind' => 'after', 'amount' => 8, 'unit' => 'day', 'time' => '09:00'];
        $this->inForce(['lines' => [
            ['kind' => 'set_fields', 'set' => [['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'closed']]], 'at' => $after],
            [
                'kind' => 'send_message', 'to' => [['kind' => 'field', 'path' => 'contact']], 'subject' => 'Last',
                'body' => '<p>We closed it.</p>', 'at' => $after,
            ],
            ['kind' => 'comment', 'text' => 'A day later', 'at' => ['amount' => 9] + $after],
        ]] + self::CHASE);
        $ticket = $this->written(['status' => 'waiting'])['id'];
        $this->passTo('2026-12-20T12:00:00Z');
        self::assertSame(['Last'], $this->sent($ticket), 'until is read before the moment, not between its lines');
        self::assertSame(['inked', 'inked', 'struck: until Status is not Waiting on customer'], array_values($this->lines($ticket)));
        $entries = DB::table('entries')->where([
            'record_id' => $ticket, 'record_type' => 'ticket', 'kind' => 'line',
        ])->orderBy('id')->pluck('at')->all();
        self::assertSame(['2026-12-02 08:00:00', '2026-12-02 08:00:00'], $entries);
        // Proofreading says that of the line a day later, and of no line of the same moment.
        $remarks = $this->as('ines.okafor', 'POST', 'remarks', ['file' => ['lines' => [
            [
                'kind' => 'set_fields', 'set' => [['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'closed']]], 'at' => $after,
            ], ['kind' => 'comment', 'text' => 'With it', 'at' => $after],
            ['kind' => 'comment', 'text' => 'Later', 'at' => ['amount' => 9] + $after],
        ]] + self::CHASE])->json();
        self::assertSame(
            ['/lines/2'],
            array_column(array_filter($remarks, static fn (array $remark): bool => $remark['code'] === 'after_the_end'), 'at'),
        );
    }

    public function test_a_date_rule_put_in_force_looks_at_the_date(): void
    {
        $customer = $this->customer()['id'];
        $tickets = [];
        foreach (['2026-11-01', '2026-12-24', '2027-01-30', '2027-02-20', '2027-11-24'] as $due) {
            $tickets[$due] = $this->ticket(['customer' => $customer, 'due' => $due])['record']['id'];
        }
        $started = function (string $existing) use ($tickets): array {
            DB::beginTransaction();
            $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => self::NEAR])->json();
            $match = $this->as('ines.okafor', 'GET', "rules/{$rule['id']}/matching")->assertOk()->json();
            self::assertSame([5, 2, 3], [$match['matching'], $match['starting'], $match['waiting']]);
            $this->as(
                'ines.okafor',
                'POST',
                "rules/{$rule['id']}/publish",
                ['version' => $rule['draftVersion'], 'existing' => $existing, 'hours' => 0],
            )->assertOk();
            $this->passTo('2026-11-24T10:00:00Z');
            $now = DB::table('tasks')->where('rule_id', $rule['id'])->orderBy('record_id')->pluck('record_id')->all();
            $this->passTo('2027-01-01T12:00:00Z');
            $later = DB::table('tasks')->where('rule_id', $rule['id'])->orderBy('record_id')->pluck('record_id')->all();
            DB::rollBack();
            $this->forgetEverything();
            $this->clockAt(self::NOW);

            return [array_keys(array_intersect($tickets, $now)), array_keys(array_intersect($tickets, $later))];
        };
        self::assertSame([['2026-12-24', '2027-01-30'], ['2026-12-24', '2027-01-30', '2027-02-20']], $started('start'));
        self::assertSame([[], ['2027-02-20']], $started('count'));
        self::assertSame([[], ['2027-02-20']], $started('leave'));
    }

    public function test_what_is_nearer_already_is_taken_unless_that_day_alone_is_wanted(): void
    {
        $taking = $this->inForce(self::NEAR);
        $strict = $this->inForce(['name' => 'That day', 'when' => ['onDayOnly' => true] + self::NEAR['when']] + self::NEAR);
        $fired = static fn (int $rule): array => DB::table('tasks')->where('rule_id', $rule)->orderBy('record_id')->pluck('record_id')
            ->all();
        $made = $this->ticket(['due' => '2026-12-24'])['record'];
        $far = $this->ticket(['due' => '2027-11-24'])['record'];
        $past = $this->ticket(['due' => '2026-11-20'])['record'];
        self::assertSame([[$made['id']], []], [$fired($taking), $fired($strict)]);
        $far = $this->change($far, ['due' => '2026-12-10'])['record'];
        self::assertSame([[$made['id'], $far['id']], []], [$fired($taking), $fired($strict)], 'moved inside, it is taken at once');
        $this->change($far, ['subject' => 'Something else']);
        $this->passTo('2027-03-01T00:00:00Z');
        self::assertSame([[$made['id'], $far['id']], []], [$fired($taking), $fired($strict)], 'and once for each date');
        self::assertSame(0, DB::table('tasks')->where('record_id', $past['id'])->count());
    }

    public function test_any_rule_is_run_by_hand_where_its_when_says_so_and_has_fired_then(): void
    {
        $rule = $this->inForce(['when' => ['byHand' => true] + self::NEAR['when'], 'fires' => ['kind' => 'once_per_record']] + self::NEAR);
        $ticket = $this->ticket(['due' => '2027-11-24'])['record']['id'];
        $spared = $this->ticket(['due' => '2027-11-24', 'status' => 'closed'])['record']['id'];
        self::assertSame(
            [$rule],
            array_column($this->as('ines.okafor', 'GET', "records/ticket/{$ticket}/beside")->json('runnable'), 'rule'),
        );
        $run = fn (int $record): string => $this->as(
            'bram.castellan',
            'POST',
            "rules/{$rule}/run",
            ['recordType' => 'ticket', 'records' => [$record]],
        )->assertCreated()->json('results.0.result');
        self::assertSame(
            ['fired', 'silent', 'silent'],
            [$run($ticket), $run($ticket), $run($spared)],
            'its conditions and its guard hold by hand too',
        );
        $this->passTo('2027-12-01T00:00:00Z');
        self::assertSame(1, DB::table('tasks')->where('rule_id', $rule)->count(), 'fired by hand is fired');
        // Of a silence: what is started by hand is about the silence that is there, and that one sets it off no more.
        $quiet = $this->inForce(
            [
                'name' => 'Unchanged', 'when' => ['kind' => 'quiet', 'of' => 'change', 'amount' => 3, 'unit' => 'day', 'byHand' => true],
            ] + self::NEAR,
        );
        $still = $this->ticket()['record']['id'];
        $given = fn (): int => DB::table('tasks')->where(['rule_id' => $quiet, 'record_id' => $still])->count();
        $this->as(
            'bram.castellan',
            'POST',
            "rules/{$quiet}/run",
            ['recordType' => 'ticket', 'records' => [$still]],
        )->assertJsonPath('results.0.result', 'fired');
        $this->passTo('2027-12-10T00:00:00Z');
        self::assertSame(1, $given());
        $this->becomes($still, ['subject' => 'It moves']);
        $this->passTo('2027-12-20T00:00:00Z');
        self::assertSame(2, $given(), 'the next silence does');
        $other = $this->inForce(['name' => 'Not by hand'] + self::NEAR);
        $this->assertRefused(
            $this->as('bram.castellan', 'POST', "rules/{$other}/run", ['recordType' => 'ticket', 'records' => [$ticket]]),
            409,
            'not_runnable',
        );
    }

    public function test_a_deleted_record_strikes_out_what_is_pencilled_and_takes_it_up_again(): void
    {
        $this->inForce(['lines' => [
            [
                'kind' => 'comment', 'text' => 'One', 'at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'day'],
                'tooLate' => ['amount' => 1, 'unit' => 'day'],
            ],
            ['kind' => 'comment', 'text' => 'Two', 'at' => ['kind' => 'after', 'amount' => 4, 'unit' => 'day']],
            ['kind' => 'comment', 'text' => 'Three', 'at' => ['kind' => 'after', 'amount' => 20, 'unit' => 'day']],
        ]] + self::CHASE);
        $ticket = $this->written(['status' => 'waiting']);
        $this->as(
            'bram.castellan',
            'DELETE',
            "records/ticket/{$ticket['id']}?version={$this->now('ticket', $ticket['id'])['version']}",
        )->assertOk();
        self::assertSame(['struck: the record was deleted'], array_values(array_unique($this->lines($ticket['id']))));
        self::assertContains('struck', $this->kinds($ticket['id']));
        $this->passTo('2026-12-01T00:00:00Z');
        $this->as('bram.castellan', 'POST', "records/ticket/{$ticket['id']}/restore")->assertOk();
        $this->workNow();
        $this->passTo('2026-12-20T00:00:00Z');
        self::assertSame(
            ['Two', 'Three'],
            DB::table('comments')->where('record_id', $ticket['id'])->whereNotNull('rule_id')->orderBy('id')->pluck('text')->all(),
            'what is too late by its own word is left out, the rest is taken up',
        );
        self::assertContains('too_late', $this->kinds($ticket['id']));
    }

    public function test_a_start_that_is_held_or_paused_keeps_what_it_is_about(): void
    {
        $ticket = $this->ticket(['due' => '2026-12-24'])['record']['id'];
        $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => self::NEAR])->json();
        $this->as(
            'ines.okafor',
            'POST',
            "rules/{$rule['id']}/publish",
            ['version' => $rule['draftVersion'], 'existing' => 'start', 'hours' => 4],
        )->assertOk();
        $row = static fn (): object => DB::selectOne(
            "SELECT id, status, occasion, held_code FROM scheduled_lines WHERE record_id = ? AND kind = 'start'",
            [$ticket],
        );
        $before = $row();
        self::assertNotSame('', (string) $before->occasion);
        $this->as('tomas.weld', 'POST', "lines/{$before->id}/hold", ['why' => 'Not yet'])->assertNoContent();
        self::assertSame([$before->occasion, 'by_hand'], [$row()->occasion, $row()->held_code]);
        $this->as('tomas.weld', 'POST', "lines/{$before->id}/resume", ['why' => 'Now'])->assertNoContent();
        $this->as('ines.okafor', 'POST', "rules/{$rule['id']}/status", ['status' => 'paused'])->assertOk();
        self::assertSame([$before->occasion, 'rule_paused'], [$row()->occasion, $row()->held_code]);
        $this->assertRefused($this->as('tomas.weld', 'POST', "lines/{$before->id}/resume", ['why' => 'Go']), 409, 'rule_paused');
        $this->as('ines.okafor', 'POST', "rules/{$rule['id']}/status", ['status' => 'in_force'])->assertOk();
        self::assertSame([$before->occasion, 'pencilled', null], [$row()->occasion, $row()->status, $row()->held_code]);
        $this->passTo('2027-03-01T00:00:00Z');
        self::assertSame(
            1,
            DB::table('tasks')->where('record_id', $ticket)->count(),
            'started once, and the date itself is no news after that',
        );
    }

    public function test_the_turned_clock_does_each_thing_at_its_own_moment_and_passes_over_empty_time(): void
    {
        $rule = $this->inForce(['when' => ['time' => '00:10', 'amount' => -3] + self::NEAR['when']] + self::NEAR);
        $ticket = $this->ticket(['due' => '2026-12-20'])['record']['id'];
        for ($count = 0; $count < 25; $count++) {
            $this->inForce(
                [
                    'name' => "Timed {$count}",
                    'when' => $count % 2 === 0 ? ['amount' => -$count] + self::NEAR['when'] : [
                        'kind' => 'quiet', 'of' => 'activity', 'amount' => 300 + $count, 'unit' => 'day',
                    ],
                ] + self::NEAR,
            );
        }
        $far = new \DateTimeImmutable('2026-12-31T00:00:00Z');
        $turner = $this->app->make(ClockTurner::class);
        $at = new \DateTimeImmutable(self::NOW);
        $steps = 0;
        while ($at < $far) {
            [$at] = $turner->step($at, $far);
            $steps++;
        }
        $done = DB::table('entries')->where(['kind' => 'fired', 'rule_id' => $rule, 'record_id' => $ticket])->pluck('at')->all();
        self::assertSame(['2026-12-16 23:10:00'], $done, '00:10 in Berlin is 00:10');
        self::assertLessThan(60, $steps, 'what is empty is passed over');
        self::assertSame(0, $this->app->make(Sweep::class)->work());
    }

    public function test_a_moment_that_cannot_be_kept_is_an_entry_and_undoes_nothing(): void
    {
        $this->inForce(['name' => 'Far ahead', 'on' => 'ticket', 'when' => [
            'kind' => 'changed', 'fields' => ['due'],
        ], 'fires' => ['kind' => 'every_time'], 'lines' => [
            ['kind' => 'comment', 'text' => 'At once'], [
                'kind' => 'comment', 'text' => 'Too far', 'at' => ['kind' => 'date', 'field' => 'due', 'amount' => 100, 'unit' => 'month'],
            ],
            [
                'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Far',
                'due' => ['from' => 'due', 'amount' => 100, 'unit' => 'month'],
            ],
        ]]);
        $ticket = $this->ticket()['record'];
        $saved = $this->as(
            'bram.castellan',
            'PATCH',
            "records/ticket/{$ticket['id']}",
            ['version' => 1, 'values' => ['due' => '9998-12-31']],
        );
        self::assertSame(200, $saved->status(), (string) $saved->getContent());
        self::assertSame(['At once'], DB::table('comments')->where('record_id', $ticket['id'])->pluck('text')->all());
        self::assertSame([], array_filter($this->lines($ticket['id']), static fn (string $line): bool => $line > '9999'));
        $did = json_decode(
            (string) DB::table('entries')->where(['kind' => 'fired', 'record_id' => $ticket['id']])->value('data'),
            true,
        )['did'];
        self::assertContains('failed', array_column($did, 'kind'));
        foreach (['0999-12-31', '10000-01-01'] as $odd) {
            $this->assertRefused(
                $this->as('bram.castellan', 'PATCH', "records/ticket/{$ticket['id']}", ['version' => 99, 'values' => ['due' => $odd]]),
                422,
                'invalid_values',
                '/values/due',
            );
        }
    }
}
