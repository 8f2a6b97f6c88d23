<?php

declare(strict_types=1);

namespace Tests\App\Library;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** Working calendars: kept, given to teams and people, refused where they make no sense; and the feed of one's tasks. */
final class CalendarTest extends TimeTestCase
{
    private const OFFICE = [
        'name' => 'Office', 'timeZone' => 'Europe/Berlin',
        'hours' => ['1' => [['08:00', '16:00']], '2' => [['08:00', '16:00']], '4' => [['08:00', '12:00'], ['13:00', '16:00']]],
        'holidays' => ['2026-11-26' => 'Founders'], 'company' => true, 'teams' => [], 'people' => [],
    ];

    public function test_due_dates_go_by_the_assignees_calendar(): void
    {
        $this->as('ines.okafor', 'POST', 'calendars', self::OFFICE)->assertCreated();
        $own = $this->as(
            'ines.okafor',
            'POST',
            'calendars',
            [
                'name' => 'Weekends', 'timeZone' => 'Europe/Lisbon', 'hours' => ['6' => [['10:00', '14:00']], '7' => [['10:00', '14:00']]],
                'holidays' => [], 'company' => false, 'people' => [$this->person('bram.castellan')->id],
            ] + self::OFFICE,
        )->assertCreated()->json();
        $this->inForce(['name' => 'Two working days', 'on' => 'ticket', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'once_per_record'], 'lines' => [
                [
                    'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Do',
                    'due' => ['amount' => 2, 'unit' => 'working_day', 'time' => '12:00'],
                ],
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Quick',
                    'due' => ['amount' => 3, 'unit' => 'working_hour']],
                [
                    'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Nine days',
                    'due' => ['amount' => 9, 'unit' => 'day', 'from' => 'due', 'roll' => 'next'],
                ],
            ]]);
        $due = fn (string $owner): array => array_column(
            $this->as('ines.okafor', 'GET', 'tasks?whose=all')->json('tasks'),
            'dueAt',
            'title',
        );
        $this->ticket(['owner' => $this->person('hugo.fenner')->id, 'due' => '2026-11-26']);
        // Wednesday is no working day here, Thursday a holiday: Monday and Tuesday are.
        self::assertSame(
            ['Quick' => '2026-11-24T11:40:00Z', 'Do' => '2026-12-01T11:00:00Z', 'Nine days' => '2026-12-07T16:00:00Z'],
            $due('hugo'),
        );
        DB::table('tasks')->delete();
        $this->ticket(['owner' => $this->person('bram.castellan')->id, 'due' => '2026-11-26']);
        self::assertSame(
            ['Quick' => '2026-11-28T13:00:00Z', 'Do' => '2026-11-29T12:00:00Z', 'Nine days' => '2026-12-05T16:00:00Z'],
            $due('bram'),
        );
        $this->assertRefused(
            $this->as('ines.okafor', 'PUT', "calendars/{$own['id']}", ['version' => 7] + self::OFFICE + ['id' => 0]),
            409,
            'name_taken',
            '/name',
        );
        $this->assertRefused(
            $this->as('ines.okafor', 'PUT', "calendars/{$own['id']}", ['version' => 7, 'name' => 'Other'] + self::OFFICE),
            409,
            'stale_version',
        );
    }

    public function test_calendars_that_make_no_sense_are_refused_at_their_place(): void
    {
        $keep = fn (array $how) => $this->as('ines.okafor', 'POST', 'calendars', $how + self::OFFICE);
        $this->assertRefused($keep(['hours' => []]), 422, 'invalid_values', '/hours');
        $this->assertRefused($keep(['hours' => ['1' => [['17:00', '08:00']]]]), 422, 'invalid_values', '/hours');
        $this->assertRefused($keep(['hours' => ['1' => [['08:00', '12:00'], ['11:00', '13:00']]]]), 422, 'invalid_values', '/hours');
        $this->assertRefused($keep(['timeZone' => 'Europe/Atlantis']), 422, 'invalid_values', '/timeZone');
        $this->assertRefused($keep(['holidays' => ['2026-02-30' => 'Never']]), 422, 'invalid_values', '/holidays');
        $this->assertRefused($keep(['name' => ' ']), 422, 'invalid_values', '/name');
        $this->as('bram.castellan', 'POST', 'calendars', self::OFFICE)->assertForbidden();
        self::assertSame(0, DB::table('calendars')->count());
    }

    public function test_holidays_come_from_a_calendar_file(): void
    {
        $ics = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n"
            ."BEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:20261224\r\nDTEND;VALUE=DATE:20261227\r\nSUMMARY:Winter days\r\nEND:VEVENT\r\n"
            ."BEGIN:VEVENT\r\nUID:2\r\nDTSTART;VALUE=DATE:20270101\r\nSUMMARY:New Year\r\nEND:VEVENT\r\n"
            ."END:VCALENDAR\r\n";
        $read = $this->as('ines.okafor', 'POST', 'calendars/holidays', ['text' => $ics])->assertOk()->json('holidays');
        self::assertSame(
            ['2026-12-24' => 'Winter days', '2026-12-25' => 'Winter days', '2026-12-26' => 'Winter days', '2027-01-01' => 'New Year'],
            $read,
        );
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', 'calendars/holidays', ['text' => 'no calendar']),
            422,
            'invalid_values',
            '/text',
        );
        $this->assertRefused(
            $this->as('ines.okafor', 'POST', 'calendars/holidays', ['text' => "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nEND:VCALENDAR\r\n"]),
            422,
            'invalid_values',
            '/text',
        );
    }

    public function test_the_feed_of_tasks_is_secret_and_can_be_revoked(): void
    {
        $this->inForce($this->demoFile('010-urgent-ticket'));
        $this->ticket(['priority' => 'urgent']);
        $url = (string) $this->as('priya.lindqvist', 'POST', 'feed')->assertCreated()->json('url');
        $path = (string) parse_url($url, PHP_URL_PATH);
        $feed = $this->get($path)->assertOk()->assertHeader('Content-Type', 'text/calendar; charset=utf-8')->getContent();
        self::assertStringContainsString('BEGIN:VTODO', (string) $feed);
        self::assertStringContainsString('DUE:20261124T124000Z', (string) $feed);
        $newer = (string) parse_url((string) $this->as('priya.lindqvist', 'POST', 'feed')->json('url'), PHP_URL_PATH);
        $this->get($path)->assertNotFound();
        $this->get($newer)->assertOk();
        $this->as('priya.lindqvist', 'DELETE', 'feed')->assertNoContent();
        $this->get($newer)->assertNotFound();
        $this->get('/feed/'.str_repeat('0', 48).'.ics')->assertNotFound();
    }

    public function test_a_record_tells_how_long_it_was_at_each_stage(): void
    {
        $ticket = $this->ticket()['record'];
        $this->clockAt('2026-11-25T08:40:00Z');
        $ticket = $this->change($ticket, ['status' => 'waiting'])['record'];
        $this->clockAt('2026-11-27T08:40:00Z');
        $stages = $this->as('ines.okafor', 'GET', "records/ticket/{$ticket['id']}/stages")->assertOk()->json();
        self::assertSame(
            [['Open', 86_400, false], ['Waiting on customer', 172_800, true]],
            array_map(static fn (array $stage): array => [$stage['label'], $stage['seconds'], $stage['current']], $stages),
        );
        self::assertSame('2026-11-25T08:40:00Z', $this->now('ticket', $ticket['id'])['stageSince']);
    }
}
