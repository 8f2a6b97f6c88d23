<?php

declare(strict_types=1);

namespace Tests\App\Slips;

use App\Models\Outbound\StoredMessage;
use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Store\Slips\SlipLink;
use App\Work\Slips\SlipsDue;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\Delivers;
use Tests\App\Support\TimeTestCase;

/** Reply slips: sent by a rule, answered without an account, reminded of, passed on along a list, and what follows from each. */
final class SlipTest extends TimeTestCase
{
    use Delivers;

    /** A picture of one point. */
    private const PNG = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==';

    private const ASKS = [
        ['kind' => 'choice', 'label' => 'Is it done?', 'options' => ['Done', 'Not done'], 'needed' => true],
        ['kind' => 'text', 'label' => 'Why not?', 'needed' => true, 'onlyIf' => ['question' => 'Is it done?', 'is' => 'Not done']],
        ['kind' => 'field', 'path' => 'hours', 'label' => 'How many hours?', 'onlyIf' => ['question' => 'Is it done?', 'is' => 'Done']],
        ['kind' => 'field', 'path' => 'agreement.end', 'label' => 'When does their contract end?'],
        ['kind' => 'file', 'label' => 'A picture'],
        ['kind' => 'signature', 'label' => 'Your name', 'needed' => true],
    ];

    public function test_a_crew_answers_on_the_page_and_the_record_moves_on(): void
    {
        $this->inForce(self::rule());
        $visit = $this->visit($this->partner('Moor Crew'));
        $letter = $this->latestLetter();
        self::assertStringContainsString('Round at the hotel', $letter->html);
        self::assertStringNotContainsString(SlipLink::token($this->turn()), $letter->html.$letter->text, 'what is kept gives no link away');
        self::assertStringNotContainsString(SlipLink::token($this->turn()), json_encode(DB::table('slip_turns')->get()) ?: '');
        $arrived = $this->delivered($letter->id);
        $token = SlipLink::token($this->turn());
        $plain = quoted_printable_decode($arrived);
        self::assertSame(2, substr_count($plain, "/slip/{$token}"), 'in the text and in the HTML of the letter');
        $page = $this->get("/slip/{$token}")->assertOk()->assertSee('Is it done?')->assertSee('Round at the hotel');
        $page->assertHeader('X-Robots-Tag', 'noindex')->assertDontSee('Larkmoss Ledger')->assertDontSee('Brine');
        self::assertSame('waiting', StoredSlip::query()->firstOrFail()->status->value, 'looking does nothing');

        $this->answer($token, ['Done', '', '2,5 or so', '', '', 'Rosa Bell'])->assertStatus(422)->assertSee('hours', false);
        $this->answer($token, ['', '', '', '', '', ''])->assertStatus(422)->assertSee('This has to be answered.');
        $this->answer($token, ['Not done', '', '', '', '', 'Rosa Bell'])->assertStatus(422);
        self::assertNull($this->now('visit', $visit)['values']['hours'], 'nothing is written of what cannot be taken');
        $picture = UploadedFile::fake()->createWithContent('before.png', (string) base64_decode(self::PNG));
        $this->answer($token, ['Done', '', '2.5', '2027-03-31', $picture, 'Rosa Bell'])->assertRedirect("/slip/{$token}");
        $this->settle();

        $now = $this->now('visit', $visit);
        self::assertSame(['2.50', 'done'], [$now['values']['hours'], $now['values']['status']]);
        self::assertSame('2027-03-31', $this->now('agreement', $now['values']['agreement'])['values']['end']);
        self::assertSame('before.png', DB::table('files')->where('record_id', $visit)->value('name'));
        self::assertSame(['slip'], DB::table('entries')->where('record_type', 'agreement')->where('kind', 'changed')->pluck('via')->all());
        $told = $this->told($visit);
        self::assertStringContainsString('Moor Crew answered', $told);
        self::assertStringContainsString('Is it done? Done', $told);
        self::assertStringContainsString('Your name: Rosa Bell', $told);
        $this->get("/slip/{$token}")->assertOk()->assertSee('Your answer has arrived')->assertSee('Rosa Bell');
        $this->answer($token, ['Not done', 'Rain', '', '', '', 'Rosa Bell'])->assertStatus(409)->assertSee('answered already');
        self::assertSame('done', $this->now('visit', $visit)['values']['status'], 'the line has gone on');
    }

    public function test_saying_no_starts_other_lines_and_says_why(): void
    {
        $this->inForce(self::rule());
        $visit = $this->visit($this->partner('Moor Crew'));
        $this->answer($this->token(), ['Not done', 'The door was locked', '', '', '', 'Rosa Bell'])->assertRedirect();
        $this->settle();
        self::assertSame('planned', $this->now('visit', $visit)['values']['status']);
        self::assertSame(
            ["Not done by Moor Crew: Is it done? Not done\nWhy not? The door was locked\nYour name: Rosa Bell"],
            DB::table('comments')->where('record_id', $visit)->pluck('text')->all(),
        );
        self::assertSame([], DB::table('scheduled_lines')->where('record_id', $visit)->where('status', 'pencilled')->pluck('id')->all());
    }

    public function test_silence_is_reminded_of_by_letter_then_by_text_and_the_job_passes_along_the_list(): void
    {
        $this->inForce(self::rule());
        $first = $this->partner('Moor Crew', ['visits_done' => '5']);
        $this->partner('Fell Crew', ['visits_done' => '9']);
        $this->partner('Mute Crew', ['visits_done' => '6', 'email' => null, 'phone' => null]);
        $this->partner('Dale Crew', ['visits_done' => '7']);
        $visit = $this->visit($first);
        $old = $this->token();
        $this->passTo('2026-11-27T08:00:00Z');
        self::assertSame(['email', 'email', 'sms'], $this->channels($visit), 'two letters, and then a text message');
        $this->passTo('2026-11-28T09:00:00Z');
        $names = fn (): array => StoredSlip::query()->firstOrFail()->turns->map(
            static fn (SlipTurnRow $turn): string => "{$turn->name}: {$turn->state->value}",
        )->all();
        self::assertSame(['Moor Crew: passed_on', ': unreached', 'Dale Crew: waiting'], $names());
        $partner = $this->now('visit', $visit)['values']['partner'];
        self::assertSame('Dale Crew', DB::table('records_partner')->where('id', $partner)->value('name'));
        $this->get("/slip/{$old}")->assertOk()->assertSee('Somebody else has been asked');
        $this->answer($old, ['Done', '', '1', '', '', 'R'])->assertStatus(409)->assertSee('Somebody else has been asked');
        $this->passTo('2026-12-10T09:00:00Z');
        self::assertSame(
            ['Moor Crew: passed_on', ': unreached', 'Dale Crew: passed_on', 'Fell Crew: over'],
            $names(),
        );
        self::assertSame('run_out', StoredSlip::query()->firstOrFail()->status->value);
        self::assertSame(['Nobody takes it'], DB::table('tasks')->where('record_id', $visit)->pluck('title')->all(), 'the end of the list');
        self::assertStringContainsString('Dale Crew is asked; Moor Crew did not answer', $this->told($visit));
        self::assertStringContainsString('the slip is left without an answer', $this->told($visit));
        // What a rehearsal tells of the same record is what came to pass.
        self::assertSame(1, DB::table('slips')->count());
    }

    public function test_a_link_that_is_forged_used_up_withdrawn_or_late_says_so(): void
    {
        $this->inForce(self::rule(['then' => null]));
        $visit = $this->visit($this->partner('Moor Crew'));
        foreach ([str_repeat('a', 43), substr($this->token(), 0, -1), 'mine'] as $forged) {
            $this->get("/slip/{$forged}")->assertDontSee('Is it done?');
        }
        $this->get('/slip/'.str_repeat('b', 43))->assertStatus(404)->assertSee('leads nowhere');
        $id = StoredSlip::query()->firstOrFail()->id;
        $old = $this->token();
        $this->as('bram.castellan', 'POST', "slips/{$id}/again")->assertOk();
        $this->get("/slip/{$old}")->assertStatus(404);
        self::assertNotSame($old, $this->token());
        $this->get("/slip/{$this->token()}")->assertOk()->assertSee('Is it done?');
        $this->as('bram.castellan', 'POST', "slips/{$id}/withdraw")->assertOk()->assertJsonPath('status', 'withdrawn');
        $this->answer($this->token(), ['Done', '', '1', '', '', 'R'])->assertStatus(409)->assertSee('withdrawn');
        $this->assertRefused($this->as('bram.castellan', 'POST', "slips/{$id}/withdraw"), 409, 'ended');
        $this->visit($this->partner('Fell Crew'));
        $late = $this->token();
        $this->clockAt('2026-12-24T09:00:00Z');
        $this->answer($late, ['Done', '', '1', '', '', 'R'])->assertStatus(409)->assertSee('The time to answer has run out');
        self::assertSame('planned', $this->now('visit', $visit)['values']['status']);
    }

    public function test_a_draft_is_kept_and_an_answer_can_be_corrected_until_a_line_goes_on(): void
    {
        $this->inForce(['lines' => [self::rule()['lines'][0]]] + self::rule());
        $visit = $this->visit($this->partner('Moor Crew'));
        $token = $this->token();
        $this->postJson("/slip/{$token}/draft", ['answers' => ['5' => 'Rosa B']])->assertNoContent();
        $this->get("/slip/{$token}")->assertSee('value="Rosa B"', false);
        $this->answer($token, ['Done', '', '1', '', '', 'Rosa Bell'])->assertRedirect();
        $this->get("/slip/{$token}")->assertSee('Correct the answer');
        $this->get("/slip/{$token}?again=1")->assertSee('value="Rosa Bell"', false);
        $this->answer($token, ['Done', '', '3', '', '', 'Rosa Bell'])->assertRedirect();
        self::assertSame('3.00', $this->now('visit', $visit)['values']['hours']);
        self::assertStringContainsString('corrected the answer', $this->told($visit));
    }

    public function test_a_rule_that_refuses_is_told_at_the_question_and_files_are_what_they_say(): void
    {
        $this->inForce(self::rule());
        $this->inForce(['name' => 'No long visits', 'on' => 'visit', 'when' => ['kind' => 'created_or_changed'],
            'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'over', 'field' => 'hours', 'value' => '8']]],
            'lines' => [['kind' => 'refuse', 'message' => 'Nobody works longer than 8 hours.', 'field' => 'hours']]]);
        $visit = $this->visit($this->partner('Moor Crew'));
        $this->answer($this->token(), ['Done', '', '9', '', '', 'R'])->assertStatus(422)->assertSee('Nobody works longer than 8 hours.');
        file_put_contents($path = tempnam(sys_get_temp_dir(), 'slip') ?: '', '<script>alert(1)</script>');
        $fake = new UploadedFile($path, 'before.jpg', null, null, true);
        $this->answer($this->token(), ['Done', '', '1', '', $fake, 'R'])->assertStatus(422)->assertSee('not what its name says');
        self::assertSame('waiting', StoredSlip::query()->firstOrFail()->status->value);
        self::assertNull($this->now('visit', $visit)['values']['hours']);
        self::assertSame(0, DB::table('files')->count());
    }

    public function test_a_colleague_answers_inside_and_finds_it_waiting(): void
    {
        $this->inForce(['name' => 'Two numbers', 'on' => 'customer', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'slip', 'to' => [['kind' => 'person', 'person' => ['kind' => 'owner']]],
                'subject' => 'Numbers for {name}',
                'body' => '<p>Please.</p>', 'asks' => [['kind' => 'field', 'path' => 'yearly_value', 'needed' => true]]]]]);
        $customer = $this->customer();
        $mine = $this->as('jonas.pike', 'GET', 'slips?box=mine')->assertOk()->json();
        self::assertSame([1, 1, true], [$mine['count'], $mine['mineWaiting'], $mine['slips'][0]['isMine']]);
        self::assertSame(0, $this->as('bram.castellan', 'GET', 'slips?box=mine')->json('count'));
        $id = $mine['slips'][0]['id'];
        $this->actingAs($this->person('bram.castellan'), 'sanctum')->get("/slip/mine/{$id}")->assertStatus(404);
        $this->actingAs($this->person('jonas.pike'), 'sanctum')->get("/slip/mine/{$id}")->assertOk()->assertSee('Yearly value');
        $this->post("/slip/mine/{$id}", ['answers' => ['1200']])->assertRedirect();
        self::assertSame('1200.00', $this->now('customer', $customer['id'])['values']['yearly_value']);
        $entry = DB::table('entries')->where('kind', 'slip')->first();
        self::assertSame($this->person('jonas.pike')->id, (int) $entry?->actor_id);
    }

    /**
     * Visits are sent to their crew, reminded of after a day, and passed on after three.
     *
     * @param  array<string, mixed>  $line  what the line has besides; null for nothing
     * @return array<string, mixed>
     */
    public static function rule(array $line = []): array
    {
        $once = static fn (array $at, array $does): array => $does + ['at' => ['line' => 'crew', 'amount' => 0, 'unit' => 'day'] + $at];

        return [
            'name' => 'A visit goes to its crew', 'on' => 'visit', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [
                array_filter($line + [
                    'kind' => 'slip', 'key' => 'crew', 'to' => [['kind' => 'field', 'path' => 'partner']], 'subject' => 'Visit {number}',
                    'body' => '<p>Please see to it: <span data-merge="purpose">Purpose</span></p>', 'asks' => self::ASKS,
                    'remind' => ['amount' => 1, 'unit' => 'day'], 'texts' => 2, 'within' => ['amount' => 4, 'unit' => 'day'],
                    'then' => ['kind' => 'record', 'field' => 'partner', 'by' => 'visits_done'],
                ], static fn (mixed $value): bool => $value !== null),
                $once(['kind' => 'answered', 'with' => 'Done'], ['kind' => 'set_fields', 'set' => [
                    ['field' => 'status', 'to' => ['kind' => 'value', 'value' => 'done']],
                ]]),
                $once(['kind' => 'answered', 'with' => 'Not done'], [
                    'kind' => 'comment', 'text' => 'Not done by {slip.by}: {slip.answers}',
                ]),
                $once(['kind' => 'run_out'], ['kind' => 'give_task', 'to' => ['kind' => 'creator'], 'title' => 'Nobody takes it']),
            ],
        ];
    }

    /** @param  array<string, mixed>  $values */
    private function partner(string $name, array $values = []): int
    {
        return $this->created('partner', $values + [
            'name' => $name, 'email' => mb_strtolower(strtok($name, ' ') ?: 'x').'@crews.example', 'phone' => '+49 30 5550 0199',
        ])['record']['id'];
    }

    private function visit(int $partner): int
    {
        $agreement = $this->created('agreement', ['title' => 'Care', 'status' => 'running', 'customer' => $this->customer()['id']]);

        return $this->created('visit', [
            'purpose' => 'Round at the hotel', 'agreement' => $agreement['record']['id'], 'status' => 'planned', 'partner' => $partner,
        ])['record']['id'];
    }

    private function turn(): SlipTurnRow
    {
        return SlipTurnRow::query()->latest('id')->firstOrFail();
    }

    private function token(): string
    {
        return SlipLink::token($this->turn());
    }

    private function latestLetter(): StoredMessage
    {
        return StoredMessage::query()->where('channel', 'email')->whereNotNull('slip_turn_id')->latest('id')->firstOrFail();
    }

    /** @return list<string> by which ways slips of a record went out */
    private function channels(int $record): array
    {
        return DB::table('messages')->where('record_id', $record)->whereNotNull('slip_turn_id')->orderBy('id')->pluck('channel')->all();
    }

    /** @param  list<string|UploadedFile>  $answers  by the place of the question */
    private function answer(string $token, array $answers): TestResponse
    {
        $this->app['auth']->forgetGuards();

        return $this->post("/slip/{$token}", ['answers' => $answers]);
    }

    private function told(int $record): string
    {
        $account = $this->as('ines.okafor', 'GET', "records/visit/{$record}/account?limit=50")->json();

        return implode("\n", array_map(
            static fn (array $entry): string => json_encode($entry, JSON_UNESCAPED_UNICODE) ?: '',
            $account['entries'],
        ));
    }

    private function settle(): void
    {
        do {
            $done = $this->app->make(SlipsDue::class)->work();
            $this->workNow();
        } while ($done > 0);
    }
}
