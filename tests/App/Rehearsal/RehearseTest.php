<?php

declare(strict_types=1);

namespace Tests\App\Rehearsal;

use App\Evidence\Rehearsal\Proofs;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** Rehearsals through the API: what they show is what then happens, and they touch nothing. */
final class RehearseTest extends TimeTestCase
{
    public function test_what_a_rehearsal_shows_is_what_the_application_does(): void
    {
        $ticket = $this->wilting();
        $file = $this->chase();
        $before = $this->everything();
        $played = $this->rehearse(['file' => $file, 'record' => ['id' => $ticket['id']]]);
        self::assertSame($before, $this->everything(), 'a rehearsal touches nothing');
        self::assertSame('fires', $played['why']['reason']);
        self::assertSame('Status becomes Waiting on customer', $played['openingSaid']);
        $this->inForce($file);
        $this->becomes($ticket['id'], ['status' => 'waiting']);
        $this->passTo('2026-12-20T00:00:00Z');
        $happened = DB::select(
            "SELECT e.kind, e.at FROM entries e WHERE e.record_type = 'ticket' AND e.record_id = ? AND e.kind IN ('fired', 'line', "
                ."'changed') AND e.id > 3 ORDER BY e.id",
            [$ticket['id']],
        );
        $shown = array_map(static fn (array $entry): string => "{$entry['entry']['kind']} {$entry['entry']['at']}", $played['entries']);
        self::assertSame(
            array_map(static fn (object $row): string => "{$row->kind} ".str_replace(' ', 'T', $row->at).'Z', $happened),
            $shown,
        );
        self::assertSame(
            DB::table('messages')->pluck('subject')->all(),
            array_merge(...array_map(static fn (array $entry): array => array_column($entry['messages'], 'subject'), $played['entries'])),
        );
        self::assertSame(
            DB::table('tasks')->pluck('title')->all(),
            array_merge(...array_map(static fn (array $entry): array => array_column($entry['tasks'], 'title'), $played['entries'])),
        );
    }

    public function test_what_is_supposed_changes_what_comes(): void
    {
        $ticket = $this->wilting();
        $ask = ['file' => $this->chase(), 'record' => ['id' => $ticket['id']]];
        $reply = ['kind' => 'word', 'event' => 'reply', 'at' => '2026-11-27T12:00:00Z', 'text' => 'Still here'];
        $played = $this->rehearse($ask + ['whatIfs' => [$reply]]);
        self::assertSame(['a reply arrives'], $played['whatIfs']);
        self::assertSame([1, 0, 2], [$played['tally']['notes'], $played['tally']['tasks'], $played['tally']['struck']]);
        self::assertSame([1, 1, 0], [$played['without']['notes'], $played['without']['tasks'], $played['without']['struck']]);
        self::assertStringContainsString('Status is Closed', implode(' ', $played['without']['ends']));
        self::assertStringNotContainsString('Closed', implode(' ', $played['tally']['ends']));
        self::assertSame(['2026-11-29T08:40:00Z', '2026-12-02T08:40:00Z'], array_column($played['struck'], 'due'));
        // Moved behind the second line, it strikes out only the last.
        $later = $this->rehearse($ask + ['whatIfs' => [['at' => '2026-11-30T12:00:00Z'] + $reply]]);
        self::assertSame(['2026-12-02T08:40:00Z'], array_column($later['struck'], 'due'));
        // The owner is away: the note goes to nobody, the task to whoever stands in.
        $away = $this->rehearse(
            $ask + [
                'whatIfs' => [
                    [
                        'kind' => 'away', 'person' => $this->person('ines.okafor')->id, 'at' => '2026-11-24T00:00:00Z',
                        'until' => '2027-01-01T00:00:00Z',
                    ],
                ],
            ],
        );
        self::assertNotSame(
            $played['without']['said'].json_encode($this->rehearse($ask)['entries']),
            $away['tally']['said'].json_encode($away['entries']),
        );
        // A task that is done, and one that is left.
        $done = $this->rehearse($ask + ['whatIfs' => [['kind' => 'task_done', 'task' => 1, 'at' => '2026-11-30T12:00:00Z']]]);
        self::assertContains('task_done', array_column(array_column($done['entries'], 'entry'), 'kind'));
        // A change that ends it.
        $changed = $this->rehearse(
            $ask + ['whatIfs' => [['kind' => 'change', 'at' => '2026-11-25T12:00:00Z', 'set' => ['priority' => 'urgent']]]],
        );
        self::assertContains('Priority is Urgent', $changed['tally']['ends']);
    }

    public function test_a_holiday_moves_what_counts_working_days(): void
    {
        $ticket = $this->wilting();
        $file = [
            'lines' => [
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Look',
                    'at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'working_day'],
                ],
            ],
        ] + $this->chase();
        unset($file['until']);
        $at = fn (array $more): string => array_values(array_filter(
            $this->rehearse(['file' => $file, 'record' => ['id' => $ticket['id']]] + $more)['entries'],
            static fn (array $entry): bool => $entry['entry']['kind'] === 'line',
        ))[0]['entry']['at'];
        self::assertSame('2026-11-26T08:40:00Z', $at([]));
        self::assertSame('2026-11-27T08:40:00Z', $at(['whatIfs' => [['kind' => 'holiday', 'day' => '2026-11-25']]]));
    }

    public function test_a_record_is_found_or_made_up(): void
    {
        $file = $this->chase();
        self::assertSame('made_up', $this->rehearse(['file' => $file])['pick'], 'there is no record at all');
        $near = $this->wilting();
        self::assertSame(['nearly', $near['id']], [($played = $this->rehearse(['file' => $file]))['pick'], $played['record']['id']]);
        $this->becomes($near['id'], ['status' => 'waiting']);
        self::assertSame('matched', $this->rehearse(['file' => $file])['pick']);
        $made = $this->rehearse(['file' => $file, 'record' => ['pick' => 'made_up']]);
        self::assertSame('fires', $made['why']['reason']);
        self::assertSame('waiting', $made['record']['values']['status']);
        $this->as('ines.okafor', 'POST', 'rehearse', ['file' => $file, 'record' => ['pick' => 'nearly']])->assertNotFound();
        $this->as('ines.okafor', 'POST', 'rehearse', ['file' => $file, 'record' => ['id' => 99_999]])->assertNotFound();
        $this->as('ines.okafor', 'POST', 'rehearse', ['file' => ['lines' => []] + $file])->assertStatus(422);
        $this->as(
            'ines.okafor',
            'POST',
            'rehearse',
            ['file' => $file, 'whatIfs' => [['kind' => 'change', 'at' => 'soon', 'set' => ['status' => 'open']]]],
        )->assertStatus(422)->assertJsonPath('problems.0.at', '/whatIfs/0/at');
        $this->as(
            'ines.okafor',
            'POST',
            'rehearse',
            ['file' => $file, 'whatIfs' => [['kind' => 'change', 'at' => self::NOW, 'set' => ['status' => 'nowhere']]]],
        )->assertStatus(422)->assertJsonPath('problems.0.at', '/whatIfs/0/set/status');
    }

    public function test_every_trigger_has_an_opening_that_starts_it(): void
    {
        $ticket = $this->wilting();
        $this->becomes($ticket['id'], ['due' => '2026-12-10']);
        $line = [
            'lines' => [['kind' => 'comment', 'text' => 'Here']], 'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => []],
        ];
        foreach ([
            ['kind' => 'created'], ['kind' => 'created_or_changed'], ['kind' => 'changed', 'fields' => []], [
                'kind' => 'changed', 'fields' => ['status'], 'to' => 'closed',
            ], [
                'kind' => 'changed', 'fields' => ['priority'], 'from' => 'urgent',
            ],
            ['kind' => 'deleted'], ['kind' => 'comment'], ['kind' => 'reply', 'about' => 'plants'], ['kind' => 'file'], [
                'kind' => 'task_done', 'about' => 'Ring',
            ], ['kind' => 'by_hand'],
            [
                'kind' => 'date', 'field' => 'due', 'amount' => -2, 'unit' => 'day',
            ], ['kind' => 'quiet', 'of' => 'change', 'amount' => 3, 'unit' => 'day'],
            [
                'kind' => 'timetable', 'rrule' => 'FREQ=WEEKLY;BYDAY=MO', 'time' => '08:00', 'from' => '2026-11-01',
            ], ['kind' => 'related', 'related' => 'customer', 'happening' => 'changed', 'fields' => ['plan']],
        ] as $when) {
            $played = $this->rehearse([
                'file' => ['when' => $when] + $line + $this->chase(), 'record' => ['id' => $ticket['id']], 'others' => false,
            ]);
            self::assertContains(
                'fired',
                array_column(array_column($played['entries'], 'entry'), 'kind'),
                json_encode($when).' '.json_encode($played['why']),
            );
        }
    }

    public function test_a_list_for_a_person_is_shown_as_it_is_sent(): void
    {
        $owner = $this->person('ines.okafor')->id;
        $ids = [];
        foreach (['2026-11-20', '2026-11-25', '2026-11-27', '2027-03-01'] as $due) {
            $ids[] = $this->ticket(['subject' => "Due {$due}", 'due' => $due, 'owner' => $owner])['record']['id'];
        }
        $other = $this->ticket([
            'subject' => 'Somebody else’s', 'due' => '2026-11-25', 'owner' => $this->person('jonas.pike')->id,
        ])['record']['id'];
        $file = ['name' => 'Morning list', 'on' => 'ticket', 'when' => [
            'kind' => 'timetable', 'rrule' => 'FREQ=DAILY', 'time' => '07:30', 'from' => '2026-11-02', 'workingDays' => true,
            'per' => ['kind' => 'owner'],
        ],
            'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'is_not', 'field' => 'status', 'value' => 'closed']],
            ], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'send_list', 'subject' => 'Your tickets', 'columns' => ['subject', 'customer.name'], 'by' => 'due',
                'days' => 3]]];
        $before = $this->everything();
        $played = $this->rehearse(['file' => $file, 'record' => ['id' => $ids[1]]]);
        self::assertSame($before, $this->everything(), 'a rehearsal touches nothing');
        self::assertSame(
            ['fires', '2026-11-25T06:30:00Z', ['gathered'], 4],
            [
                $played['why']['reason'], $played['until'], array_column(array_column($played['entries'], 'entry'), 'kind'),
                $played['entries'][0]['entry']['data']['records'],
            ],
        );
        // A what-if before it is seen in it, one after it is not.
        $closed = fn (string $at): array => $this->rehearse([
            'file' => $file, 'record' => ['id' => $ids[1]],
            'whatIfs' => [['kind' => 'change', 'at' => $at, 'set' => ['status' => 'closed']]],
        ]);
        self::assertSame(['conditions', 0], [($early = $closed('2026-11-24T12:00:00Z'))['why']['reason'], $early['tally']['emails']]);
        self::assertSame(1, $early['without']['emails']);
        self::assertSame(1, $closed('2026-11-26T12:00:00Z')['tally']['emails']);
        self::assertSame(
            '2026-11-26T06:30:00Z',
            $this->rehearse([
                'file' => $file, 'record' => ['id' => $ids[1]], 'opening' => ['kind' => 'time', 'at' => '2026-11-26T06:30:00Z'],
            ])['until'],
        );

        // Whoever has left gets none.
        self::assertSame(1, $this->rehearse(['file' => $file, 'record' => ['id' => $other]])['tally']['emails']);
        DB::table('people')->where('handle', 'jonas.pike')->update(['active' => false]);
        self::assertSame([], $this->rehearse(['file' => $file, 'record' => ['id' => $other]])['entries']);

        $this->inForce($file);
        $this->passTo('2026-11-25T07:00:00Z');
        $sent = DB::table('messages')->where('recipients', 'like', '%ines.okafor%')->sole();
        self::assertSame(
            [$sent->subject, $sent->text],
            [$played['entries'][0]['messages'][0]['subject'], $played['entries'][0]['messages'][0]['text']],
        );
        self::assertStringContainsString('Due 2026-11-25', (string) $sent->text);
    }

    public function test_remarks_come_with_a_place_and_a_way_out(): void
    {
        $file = ['fires' => ['kind' => 'every_time']] + $this->chase();
        $remarks = $this->as('ines.okafor', 'POST', 'remarks', ['file' => $file])->assertOk()->json();
        self::assertSame(['each_save', 'task_outlives'], array_column($remarks, 'code'));
        self::assertSame(['kind' => 'becomes_true'], $remarks[0]['fix']['put']['value']);
        self::assertSame(['/lines/1/lapses', ['kind' => 'is', 'field' => 'status', 'value' => 'closed']], [
            $remarks[1]['fix']['at'], $remarks[1]['fix']['put']['value'],
        ]);
        $mended = ['fires' => $remarks[0]['fix']['put']['value']] + $file;
        $mended['lines'][1]['lapses'] = $remarks[1]['fix']['put']['value'];
        self::assertSame([], $this->as('ines.okafor', 'POST', 'remarks', ['file' => $mended])->json());
        self::assertSame(
            [],
            $this->as('ines.okafor', 'POST', 'remarks', ['file' => ['lines' => []] + $file])->json(),
            'an unfinished rule has problems, not remarks',
        );
        DB::table('records_ticket')->delete();
        $ticket = $this->wilting();
        $this->becomes($ticket['id'], ['status' => 'waiting', 'owner' => null]);
        self::assertContains(
            'finds_nobody',
            array_column($this->as('ines.okafor', 'POST', 'remarks', ['file' => $this->chase()])->json(), 'code'),
        );
    }

    public function test_proofs_are_kept_broken_by_another_rule_and_accepted(): void
    {
        $ticket = $this->wilting();
        $chase = $this->inForce($this->chase());
        $kept = $this->as(
            'ines.okafor',
            'POST',
            "rules/{$chase}/proofs",
            ['name' => 'A silent customer is closed', 'file' => $this->chase(), 'record' => ['id' => $ticket['id']]],
        )->assertCreated()->json();
        self::assertTrue($kept[0]['holds']);
        self::assertContains('same', array_column($kept[0]['lines'], 'mark'));
        $this->as(
            'ines.okafor',
            'POST',
            "rules/{$chase}/proofs",
            ['name' => ' ', 'file' => $this->chase(), 'record' => ['id' => $ticket['id']]],
        )->assertStatus(422);
        // What becomes of the record afterwards is nothing to the proof.
        $this->becomes($ticket['id'], ['status' => 'closed', 'subject' => 'Something else']);
        $this->check();
        self::assertSame([true, true], [$this->proof($chase)['holds'], $this->proof($chase)['checked']]);
        // Another rule, as it is being written, would break it.
        $other = ['name' => 'Never closed by a rule', 'on' => 'ticket', 'when' => [
            'kind' => 'changed', 'fields' => ['status'], 'to' => 'waiting',
        ], 'onlyIf' => ['kind' => 'all', 'of' => []], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'set_fields', 'set' => [['field' => 'priority', 'to' => ['kind' => 'value', 'value' => 'urgent']]]]]];
        $draft = $this->as('ines.okafor', 'POST', 'rules', ['file' => $other])->json('id');
        $tried = $this->as('ines.okafor', 'POST', "rules/{$draft}/proofs/try", ['file' => $other])->assertOk()->json();
        self::assertSame(
            [['A silent customer is closed', false]],
            array_map(static fn (array $one): array => [$one['name'], $one['holds']], $tried),
        );
        self::assertContains('new', array_column($tried[0]['lines'], 'mark'));
        self::assertTrue($this->proof($chase)['holds'], 'nothing is in force yet');
        // In force, the workers find out by themselves.
        $this->as('ines.okafor', 'POST', "rules/{$draft}/publish", ['version' => 1])->assertOk();
        $this->check();
        self::assertFalse($this->proof($chase)['holds']);
        self::assertStringContainsString(
            'Never closed by a rule: Priority set to Urgent',
            implode(
                "\n",
                array_column(array_filter($this->proof($chase)['lines'], static fn (array $line): bool => $line['mark'] === 'new'), 'text'),
            ),
        );
        $this->as('ines.okafor', 'POST', "proofs/{$kept[0]['id']}/accept", ['file' => $this->chase(), 'rule' => $chase])->assertNoContent();
        $this->check();
        self::assertSame([true, 'Ines Okafor'], [$this->proof($chase)['holds'], $this->proof($chase)['acceptedBy']]);
        // And it travels with the file.
        $text = (string) $this->as('ines.okafor', 'GET', "rules/{$chase}/file")->getContent();
        $copy = $this->as('ines.okafor', 'POST', 'rules/import', ['text' => $text])->assertCreated()->json('id');
        self::assertSame(array_column($this->proof($chase)['lines'], 'text'), array_column($this->proof($copy)['lines'], 'text'));
        $this->as('ines.okafor', 'DELETE', "rules/{$copy}/draft")->assertNoContent();
        self::assertSame(1, DB::table('proofs')->count(), 'the proofs of a rule that is thrown away go with it');
        $this->as('ines.okafor', 'DELETE', "proofs/{$kept[0]['id']}")->assertNoContent();
        self::assertSame([], $this->as('ines.okafor', 'GET', "rules/{$chase}/proofs")->json());
    }

    public function test_a_rule_of_a_set_is_played_in_its_set_wherever_it_is_played(): void
    {
        $ticket = $this->wilting();
        $rules = [];
        foreach (['first', 'second'] as $name) {
            $rules[$name] = $this->inForce(['name' => "The {$name}"] + $this->chase());
            $this->as('ines.okafor', 'POST', "rules/{$rules[$name]}/either-or", ['set' => 'Chases'])->assertOk();
        }
        $file = ['name' => 'The second'] + $this->chase();
        $ask = ['file' => $file, 'rule' => $rules['second'], 'record' => ['id' => $ticket['id']], 'others' => true];
        self::assertSame('forestalled', $this->rehearse($ask)['why']['reason'], 'the first of the set takes it');
        self::assertSame('fires', $this->rehearse(['others' => false] + $ask)['why']['reason']);
        $this->as('ines.okafor', 'POST', "rules/{$rules['second']}/proofs", ['name' => 'The first takes it'] + $ask)->assertCreated();
        $tried = $this->as('ines.okafor', 'POST', "rules/{$rules['second']}/proofs/try", ['file' => $file])->assertOk()->json();
        $this->check();
        self::assertSame([true, true], [$tried[0]['holds'], $this->proof($rules['second'])['holds']], 'at an edit as by the workers');
        self::assertStringNotContainsString('The second', implode("\n", array_column($tried[0]['lines'], 'text')));
    }

    public function test_the_cases_at_the_boundaries_are_proposed(): void
    {
        $this->wilting();
        $file = ['name' => 'Costly', 'on' => 'quote', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'over', 'field' => 'discount', 'value' => '12']],
        ], 'fires' => ['kind' => 'becomes_true'],
            'lines' => [['kind' => 'comment', 'text' => 'Costly']]];
        $draft = $this->as('ines.okafor', 'POST', 'rules', ['file' => $file])->json('id');
        $cases = $this->as('ines.okafor', 'POST', "rules/{$draft}/proofs/propose", ['file' => $file])->assertOk()->json();
        $fires = array_column($cases, 'fires', 'name');
        self::assertSame(
            [false, false, true, false],
            [
                $fires['Discount is 11.9 %'], $fires['Discount is 12 %'] ?? $fires['Discount is 12.0 %'], $fires['Discount is 12.1 %'],
                $fires['Discount is empty'],
            ],
        );
        foreach ($cases as $case) {
            $this->as(
                'ines.okafor',
                'POST',
                "rules/{$draft}/proofs",
                ['name' => $case['name'], 'file' => $file] + $case['script'],
            )->assertCreated();
        }
        $moved = ['onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'at_least', 'field' => 'discount', 'value' => '12']]]] + $file;
        $tried = $this->as('ines.okafor', 'POST', "rules/{$draft}/proofs/try", ['file' => $moved])->json();
        self::assertSame(
            1,
            count(array_filter($tried, static fn (array $one): bool => ! $one['holds'])),
            'only the case at the boundary comes out differently',
        );
    }

    private function check(): void
    {
        $this->app->make(Proofs::class)->work(20);
    }

    /** @return array<string, mixed> */
    private function proof(int $rule): array
    {
        return $this->as('ines.okafor', 'GET', "rules/{$rule}/proofs")->json('0');
    }

    /** @return array<string, mixed> a chase over eight days, until there is a reply */
    private function chase(): array
    {
        $at = static fn (int $days): array => ['at' => ['kind' => 'after', 'amount' => $days, 'unit' => 'day']];

        return [
            'name' => 'Chase', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => [
                'kind' => 'all',
                'of' => [
                    ['kind' => 'is', 'field' => 'status', 'value' => 'waiting'],
                    ['kind' => 'is', 'field' => 'customer.plan', 'value' => 'full_care'],
                ],
            ], 'fires' => ['kind' => 'becomes_true'],
            'lines' => [
                ['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => '{number} waits'] + $at(3),
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring about {number}', 'due' => null] + $at(5),
                ['kind' => 'set_fields', 'set' => [['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'closed']]]] + $at(8),
            ],
            'until' => ['kind' => 'happened', 'event' => 'reply'],
        ];
    }

    /** @return array{id: int, version: int} */
    private function wilting(): array
    {
        $customer = $this->customer('Brine & Barrow Hotel', 'full_care')['id'];
        $made = $this->as(
            'ines.okafor',
            'POST',
            'records/ticket',
            [
                'values' => [
                    'subject' => 'Wilting', 'customer' => $customer, 'status' => 'open', 'priority' => 'normal',
                    'owner' => $this->person('ines.okafor')->id,
                ],
            ],
        )->assertCreated()->json('record');

        return ['id' => $made['id'], 'version' => $made['version']];
    }

    /**
     * @param  array<string, mixed>  $ask
     * @return array<string, mixed>
     */
    private function rehearse(array $ask): array
    {
        $answer = $this->as('ines.okafor', 'POST', 'rehearse', $ask);
        self::assertSame(200, $answer->status(), (string) $answer->getContent());

        return $answer->json();
    }

    /** @return array<string, string> what every table holds */
    private function everything(): array
    {
        $sums = [];
        foreach (DB::select('SHOW FULL TABLES WHERE Table_type = "BASE TABLE"') as $row) {
            $table = array_values((array) $row)[0];
            if (! in_array($table, ['sessions', 'cache', 'cache_locks', 'personal_access_tokens'], true)) {
                $sums[$table] = (string) json_encode(DB::table($table)->get());
            }
        }

        return $sums;
    }
}
