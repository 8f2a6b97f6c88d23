<?php

declare(strict_types=1);

namespace Tests\App\Timing;

use App\Store\Actor;
use App\Store\Records\RecordEvents;
use App\Store\Rules\StoredRuleBook;
use App\Store\Types\SchemaStore;
use App\Work\Timing\Clocks;
use App\Work\Timing\DatesDue;
use App\Work\Timing\Sweep;
use Illuminate\Support\Facades\DB;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\App\Support\TimeTestCase;
use VividLedger\Rule\Trigger\WaitsForDate;

/** Rules that time sets off: dates, quiet, timetables; and what happens to records that match when a rule is put in force. */
final class SweepTest extends TimeTestCase
{
    private const COMMENT = ['kind' => 'comment', 'text' => 'x'];

    /** @param  array<string, mixed>  $when */
    private function rule(array $when, array $more = []): int
    {
        return $this->inForce(
            $more + [
                'name' => 'By time', 'on' => 'ticket', 'when' => $when, 'fires' => ['kind' => 'every_time'], 'lines' => [self::COMMENT],
            ],
        );
    }

    /** @return list<string> the moments at which the rule fired for a record, on the company's clock */
    private function fired(int $rule, int $record): array
    {
        return array_map(
            static fn (string $at): string => (new \DateTimeImmutable("{$at}Z"))->setTimezone(
                new \DateTimeZone('Europe/Berlin'),
            )->format('Y-m-d H:i'),
            DB::table('entries')->where(['kind' => 'fired', 'rule_id' => $rule, 'record_id' => $record])->orderBy('id')->pluck('at')->all(),
        );
    }

    public function test_a_date_sets_a_rule_off_once_for_each_date(): void
    {
        $rule = $this->rule(['kind' => 'date', 'field' => 'due', 'amount' => -10, 'unit' => 'day', 'time' => '09:00']);
        $far = $this->ticket(['due' => '2026-12-10'])['record'];
        $near = $this->ticket(['due' => '2026-11-26'])['record'];
        $none = $this->ticket()['record'];
        $this->passTo('2026-12-01T12:00:00Z');
        self::assertSame(['2026-11-30 09:00'], $this->fired($rule, $far['id']));
        // It was nearer than that already when it was made.
        self::assertSame(['2026-11-24 09:40'], $this->fired($rule, $near['id']));
        // Moved away and back again: the same date is no news, another one is.
        $far = $this->change($this->now('ticket', $far['id']), ['due' => '2026-12-20'])['record'];
        $this->passTo('2026-12-10T12:00:00Z');
        $far = $this->change($this->now('ticket', $far['id']), ['due' => '2026-12-22'])['record'];
        $this->change($far, ['due' => '2026-12-20']);
        $this->passTo('2027-01-10T12:00:00Z');
        self::assertSame(['2026-11-30 09:00', '2026-12-10 09:00'], $this->fired($rule, $far['id']));
        self::assertSame([], $this->fired($rule, $none['id']));
        self::assertSame(0, $this->app->make(Sweep::class)->work());
        $why = json_decode(
            (string) DB::table('entries')->where(['kind' => 'fired', 'rule_id' => $rule, 'record_id' => $far['id']])->value('data'),
            true,
        )['why'];
        self::assertSame('comes to 10 days before Due', $why['trigger']);
    }

    public function test_a_week_of_downtime_is_caught_up_and_nothing_twice(): void
    {
        $rule = $this->rule(['kind' => 'date', 'field' => 'due', 'amount' => 1, 'unit' => 'working_day', 'time' => '10:00']);
        $ids = array_map(
            fn (string $due): int => $this->ticket(['due' => $due])['record']['id'],
            ['2026-11-27', '2026-11-28', '2026-11-30', '2026-12-08'],
        );
        $this->clockAt('2026-12-02T12:00:00Z');
        self::assertSame(3, $this->app->make(Sweep::class)->work());
        $this->clockAt('2026-12-02T12:01:00Z');
        self::assertSame(0, $this->app->make(Sweep::class)->work());
        // A clock that jumps back finds nothing to do again.
        DB::table('sweeps')->update(['swept_until' => '2026-11-24 08:40:00']);
        self::assertSame(0, $this->app->make(Sweep::class)->work());
        self::assertSame([1, 1, 1, 0], array_map(fn (int $id): int => count($this->fired($rule, $id)), $ids));
    }

    /** The next anniversary of all, found by looking a little ahead, is the earliest of all that there are. */
    public function test_the_next_anniversary_is_the_earliest(): void
    {
        $random = new Randomizer(new Mt19937(3));
        $row = $this->created('agreement', ['title' => 'Care', 'customer' => $this->customer()['id'], 'status' => 'running'])['record'];
        $due = $this->app->make(DatesDue::class);
        $rules = array_map(fn (int $days): int => $this->inForce([
            'name' => "By {$days}", 'on' => 'agreement', 'when' => [
                'kind' => 'date', 'field' => 'start', 'amount' => $days, 'unit' => 'day', 'time' => '08:00', 'yearly' => true,
            ], 'fires' => ['kind' => 'every_time'], 'lines' => [self::COMMENT],
        ]), [-400, -30, 0, 45, 700]);
        $book = $this->app->make(StoredRuleBook::class);
        $clock = $this->app->make(Clocks::class)->company();
        $dates = ['2024-02-29', '2000-02-28', '2027-01-01'];
        for ($round = 0; $round < 25; $round++) {
            $values = array_map(static fn (int $nth): string => $random->getInt(0, 3) === 0 ? $dates[$random->getInt(0, 2)]
                : date('Y-m-d', $random->getInt(315_532_800, 1_830_000_000)), range(0, $random->getInt(0, 2)));
            DB::table('records_agreement')->delete();
            foreach ($values as $nth => $value) {
                DB::table('records_agreement')->insert(['id' => 9000 + $nth, 'version' => 1, 'title' => 'x', 'start' => $value,
                    'customer' => $row['values']['customer']['id'] ?? $row['values']['customer'], 'status' => 'running',
                    'created_at' => '2026-01-01 00:00:00', 'updated_at' => '2026-01-01 00:00:00']);
            }
            $after = new \DateTimeImmutable('@'.$random->getInt(1_764_000_000, 1_900_000_000));
            foreach ($rules as $id) {
                $rule = $book->page($id, 1) ?? self::fail('It is in force.');
                $arriving = $rule->trigger instanceof WaitsForDate ? $rule->trigger->arriving() : self::fail('It waits for a date.');
                $moments = [];
                foreach ($values as $value) {
                    array_push($moments, ...array_column($arriving->moments($value, $clock, $after, $after->modify('+370 days')), 0));
                }
                $ahead = array_filter($moments, static fn (\DateTimeImmutable $moment): bool => $moment > $after
                    && $moment <= $after->modify('+370 days'));
                self::assertEquals($ahead === [] ? null : min($ahead), $due->next($rule, $after), "{$rule->name}: ".implode(' ', $values));
            }
        }
    }

    public function test_every_year_on_the_owners_clock_and_by_a_moment(): void
    {
        $customers = $this->inForce([
            'name' => 'Jubilee', 'on' => 'agreement',
            'when' => [
                'kind' => 'date', 'field' => 'start', 'amount' => 0, 'unit' => 'day', 'time' => '08:00', 'yearly' => true,
                'clock' => 'owner',
            ],
            'fires' => ['kind' => 'every_time'], 'lines' => [self::COMMENT],
        ]);
        $customer = $this->customer();
        $lisbon = $this->as(
            'ines.okafor',
            'POST',
            'calendars',
            [
                'name' => 'Quayside', 'timeZone' => 'Europe/Lisbon', 'hours' => ['1' => [['09:00', '17:00']]], 'holidays' => [],
                'company' => false, 'teams' => ['Service Quayside'], 'people' => [],
            ],
        )->assertCreated()->json();
        self::assertSame(['Service Quayside'], $lisbon['teams']);
        $agreement = $this->created(
            'agreement',
            [
                'title' => 'Lobby', 'customer' => $customer['id'], 'status' => 'running', 'start' => '2024-02-29',
                'owner' => $this->person('bram.castellan')->id,
            ],
        )['record'];
        $fresh = $this->created(
            'agreement',
            [
                'title' => 'New', 'customer' => $customer['id'], 'status' => 'running', 'start' => '2027-02-28',
                'owner' => $this->person('hugo.fenner')->id,
            ],
        )['record'];
        $this->clockAt('2027-02-27T08:40:00Z');
        $this->workNow();
        $this->passTo('2028-03-02T00:00:00Z');
        self::assertSame(
            ['2027-02-28', '2028-02-29'],
            array_map(static fn (string $at): string => substr($at, 0, 10), $this->fired($customers, $agreement['id'])),
        );
        self::assertSame(
            ['2028-02-28'],
            array_map(static fn (string $at): string => substr($at, 0, 10), $this->fired($customers, $fresh['id'])),
        );
        $this->assertRefused($this->as('ines.okafor', 'DELETE', "calendars/{$lisbon['id']}"), 409, 'in_use');
    }

    public function test_quiet_for_a_while(): void
    {
        $untouched = $this->rule(
            ['kind' => 'quiet', 'of' => 'activity', 'amount' => 3, 'unit' => 'day'],
            [
                'name' => 'Untouched',
                'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'status', 'value' => 'closed']]],
                'lines' => [['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Quiet']],
            ],
        );
        $kept = $this->rule(
            ['kind' => 'quiet', 'of' => 'value', 'field' => 'status', 'value' => 'waiting', 'amount' => 2, 'unit' => 'working_day'],
            ['name' => 'Waits long', 'lines' => [['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Waits']]],
        );
        $unanswered = $this->rule(
            ['kind' => 'quiet', 'of' => 'reply', 'amount' => 1, 'unit' => 'week'],
            ['name' => 'No reply', 'lines' => [['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'No reply']]],
        );
        $this->inForce(['lines' => [self::CHASE['lines'][0]], 'name' => 'Write'] + array_diff_key(self::CHASE, ['until' => 0]));
        $ticket = $this->written();
        $ticket = $this->change($ticket, ['status' => 'waiting'])['record'];
        $this->passTo('2026-11-26T08:40:00Z');
        self::assertSame(['2026-11-26 09:40'], $this->fired($kept, $ticket['id']));
        // A comment is activity, and no change of the value.
        $this->as('bram.castellan', 'POST', "records/ticket/{$ticket['id']}/comments", ['text' => 'called'])->assertCreated();
        $this->passTo('2026-12-02T00:00:00Z');
        self::assertSame(['2026-11-29 09:40'], $this->fired($untouched, $ticket['id']));
        self::assertSame(['2026-12-01 09:40'], $this->fired($unanswered, $ticket['id']));
        $type = $this->app->make(SchemaStore::class)->schema()->types['ticket'];
        $this->app->make(RecordEvents::class)->reply(
            $type,
            $ticket['id'],
            'Here I am',
            'm@x.example',
            new Actor(null),
        );
        $this->change($this->now('ticket', $ticket['id']), ['status' => 'open']);
        $this->passTo('2026-12-20T00:00:00Z');
        self::assertSame(
            [1, 2, 1],
            [
                count($this->fired($kept, $ticket['id'])), count($this->fired($untouched, $ticket['id'])),
                count($this->fired($unanswered, $ticket['id'])),
            ],
        );
    }

    public function test_a_timetable_starts_a_rule_on_each_match_or_sends_everybody_one_list(): void
    {
        $open = ['kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'status', 'value' => 'closed']]];
        $each = $this->rule(
            ['kind' => 'timetable', 'rrule' => 'FREQ=WEEKLY;BYDAY=MO', 'time' => '08:00', 'from' => '2026-11-01'],
            ['onlyIf' => $open],
        );
        $this->inForce(['name' => 'Morning list', 'on' => 'ticket', 'when' => [
            'kind' => 'timetable', 'rrule' => 'FREQ=DAILY', 'time' => '07:00', 'from' => '2026-11-01', 'workingDays' => true,
            'per' => ['kind' => 'owner'],
        ],
            'onlyIf' => $open, 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'send_list', 'subject' => 'Your day', 'columns' => ['subject', 'customer.name', 'due'], 'by' => 'due',
                'days' => 5, 'workingDays' => true]]]);
        $late = $this->ticket(['due' => '2026-11-20', 'subject' => 'Late one'])['record'];
        $this->ticket(['due' => '2026-11-27', 'subject' => 'Soon one']);
        $this->ticket(['due' => '2027-01-27', 'subject' => 'Far one']);
        $this->ticket(['due' => '2026-11-25', 'subject' => 'Of somebody else', 'owner' => $this->person('hugo.fenner')->id]);
        $closed = $this->ticket(['due' => '2026-11-25', 'status' => 'closed'])['record'];
        $this->passTo('2026-11-30T12:00:00Z');
        self::assertSame(['2026-11-30 08:00'], $this->fired($each, $late['id']));
        self::assertSame([], $this->fired($each, $closed['id']));
        // Wednesday, Thursday, Friday and Monday, for two people.
        self::assertSame(8, DB::table('messages')->where('subject', 'Your day')->count());
        $text = (string) DB::table('messages')->where('subject', 'Your day')->where(
            'recipients',
            'like',
            '%bram.castellan%',
        )->orderBy('id')->value('text');
        self::assertStringContainsString("Late (1)\n  Number | Subject | Customer › Name | Due\n  T-"
            .sprintf('%04d', $late['id']).' | Late one | Brine & Barrow Hotel | ', $text);
        self::assertStringContainsString("Next 5 working days (1)\n", $text);
        self::assertStringNotContainsString('Far one', $text);
        self::assertStringNotContainsString('somebody else', $text);
        // Three mornings missed: one list stands for them.
        $this->clockAt('2026-12-03T12:00:00Z');
        $this->workNow();
        self::assertSame(10, DB::table('messages')->where('subject', 'Your day')->count());
    }

    public function test_a_rule_is_put_in_force_in_each_of_the_three_ways(): void
    {
        $tickets = array_map(fn (): int => $this->ticket(['priority' => 'urgent'])['record']['id'], range(1, 4));
        $draft = fn (): array => $this->as('ines.okafor', 'POST', 'rules', ['file' => ['name' => 'Urgent', 'on' => 'ticket', 'when' => [
            'kind' => 'created_or_changed',
        ], 'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']],
        ],
            'fires' => ['kind' => 'once_per_record'], 'lines' => [self::COMMENT]]])->json();
        $publish = fn (array $rule, array $how) => $this->as(
            'ines.okafor',
            'POST',
            "rules/{$rule['id']}/publish",
            ['version' => $rule['draftVersion']] + $how,
        );
        $touch = fn (int $id) => $this->change($this->now('ticket', $id), ['hours' => (string) random_int(1, 9)]);

        $leave = $draft();
        $publish($leave, [])->assertOk();
        $count = $draft();
        $publish($count, ['existing' => 'count'])->assertOk();
        $start = $draft();
        $this->assertRefused($publish($start, ['existing' => 'start', 'hours' => 9999]), 422, 'invalid_values', '/hours');
        $publish($start, ['existing' => 'start', 'hours' => 4])->assertOk();
        self::assertSame(
            ['2026-11-24 08:40:00', '2026-11-24 09:40:00', '2026-11-24 10:40:00', '2026-11-24 11:40:00'],
            DB::table('scheduled_lines')->where('kind', 'start')->orderBy('due_at')->pluck('due_at')->all(),
        );
        $this->workNow();
        self::assertCount(1, $this->fired($start['id'], $tickets[0]));
        $this->passTo('2026-11-24T11:00:00Z');
        self::assertSame([1, 1, 1, 0], array_map(fn (int $id): int => count($this->fired($start['id'], $id)), $tickets));
        // One that no longer matches when its turn comes is left alone.
        $this->change($this->now('ticket', $tickets[3]), ['priority' => 'low']);
        $this->passTo('2026-11-24T13:00:00Z');
        self::assertSame([], $this->fired($start['id'], $tickets[3]));
        $touch($tickets[0]);
        self::assertSame(
            [1, 0, 1],
            array_map(fn (array $rule): int => count($this->fired($rule['id'], $tickets[0])), [$leave, $count, $start]),
        );
        self::assertSame(
            ['count', 4],
            array_values(array_slice(
                json_decode(
                    (string) DB::table('entries')->where(['kind' => 'rule_in_force', 'rule_id' => $count['id']])->value('data'),
                    true,
                ),
                0,
                2,
            )),
        );
    }

    public function test_runs_stay_on_their_page_or_move_to_the_new_one(): void
    {
        $rule = $this->inForce(self::CHASE);
        $ticket = $this->written();
        $this->change($ticket, ['status' => 'waiting']);
        $this->passTo('2026-11-28T08:00:00Z');
        $file = self::CHASE;
        $file['lines'][2]['at'] = ['kind' => 'after', 'amount' => 6, 'unit' => 'day'];
        unset($file['lines'][3]);
        $file['lines'][] = [
            'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Give up?',
            'at' => ['kind' => 'after', 'amount' => 9, 'unit' => 'day'],
        ];
        $file['lines'][] = [
            'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Long past',
            'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'],
        ];
        $file['lines'] = array_values($file['lines']);
        $version = $this->as('ines.okafor', 'GET', "rules/{$rule}")->json('draftVersion');
        $version = $this->as('ines.okafor', 'PUT', "rules/{$rule}/draft", ['version' => $version, 'file' => $file])->json('draftVersion');
        self::assertSame(
            ['runs' => 1, 'moved' => 2, 'struck' => 0, 'added' => 0],
            $this->as('ines.okafor', 'GET', "rules/{$rule}/moving")->assertOk()->json(),
        );
        $this->as('ines.okafor', 'POST', "rules/{$rule}/publish", ['version' => $version, 'move' => true])->assertOk();
        self::assertSame(['1/1' => 'inked', '2/1' => '2026-11-30 08:40:00', '3/1' => '2026-12-03 08:40:00'], $this->lines($ticket['id']));
        $this->passTo('2026-12-30T08:00:00Z');
        self::assertSame(['First', 'Second', 'Last', 'Give up?'], $this->sent($ticket['id']));
        // Without moving, a run ends on the page it began with.
        $other = $this->written(['status' => 'waiting']);
        $file['lines'] = [$file['lines'][0]];
        $version = $this->as(
            'ines.okafor',
            'PUT',
            "rules/{$rule}/draft",
            ['version' => $version + 1, 'file' => $file],
        )->json('draftVersion');
        $this->as('ines.okafor', 'POST', "rules/{$rule}/publish", ['version' => $version])->assertOk();
        $this->passTo('2027-01-30T08:00:00Z');
        self::assertCount(5, $this->sent($other['id']));
    }
}
