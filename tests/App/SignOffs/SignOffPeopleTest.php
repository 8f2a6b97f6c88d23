<?php

declare(strict_types=1);

namespace Tests\App\SignOffs;

use App\Models\People\Person;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\SignOffTestCase;

/** Who decides: limits, deputies, those who leave or get another manager; and what goes to and fro before the answer. */
final class SignOffPeopleTest extends SignOffTestCase
{
    private const OWNER = ['kind' => 'owner'];

    private const DAYS = ['within' => ['amount' => 3, 'unit' => 'day']];

    public function test_the_tree_is_climbed_to_the_limit_which_can_differ_for_a_record_type(): void
    {
        $this->limited('clea.harrow', ['limit' => '50000', 'limits' => ['quote' => '500']]);
        $this->limited('viktor.sand', ['limit' => '20000']);
        $this->assertRefused($this->as('ines.okafor', 'PATCH', 'people/'.$this->person('clea.harrow')->id, [
            'limits' => ['gadget' => '1'],
        ]), 422, 'unknown_type', '/limits/gadget');
        $this->assertRefused($this->as('jonas.pike', 'PATCH', 'people/'.$this->person('jonas.pike')->id, [
            'limit' => '9',
        ]), 403, 'not_allowed');
        $this->inForce(self::asking([[
            'who' => ['kind' => 'up_to_limit', 'from' => self::OWNER, 'field' => 'net'], 'inTurn' => true,
        ]]));
        $this->quote();
        self::assertSame(['clea.harrow'], $this->asked());
        $case = $this->as('clea.harrow', 'GET', 'sign-offs/'.$this->latest()->id)->json();
        self::assertSame(['€ 800.00', '€ 500.00'], [$case['amount'], $case['limit']]);
        self::assertSame([['step' => 1, 'people' => ['Viktor Sand'], 'leftOut' => false]], $case['ahead']);
        self::assertNull($this->say('clea.harrow', 'yes', $this->latest()->id));
        self::assertSame(['viktor.sand'], $this->asked(), 'Clea’s own limit for quotes does not suffice');
        self::assertNull($this->say('viktor.sand', 'yes', $this->latest()->id));
        self::assertSame('agreed', $this->latest()->status->value);
    }

    public function test_a_deputy_decides_for_whoever_is_absent_and_the_account_says_so(): void
    {
        $clea = $this->person('clea.harrow')->id;
        $this->limited('clea.harrow', ['deputyId' => 'dagny.west']);
        $this->as('clea.harrow', 'POST', "people/{$clea}/absences", [
            'from' => '2026-11-25T07:00:00Z', 'until' => '2026-12-02T17:00:00Z',
        ])->assertCreated()->assertJsonPath('away', false);
        $this->assertRefused($this->as('emil.crane', 'POST', "people/{$clea}/absences", [
            'from' => '2026-12-25', 'until' => '2026-12-26',
        ]), 403, 'not_allowed');
        $this->assertRefused($this->as('clea.harrow', 'POST', "people/{$clea}/absences", [
            'from' => '2026-12-01', 'until' => '2026-12-26',
        ]), 422, 'invalid_values', '/from');
        $days = $this->as('dagny.west', 'POST', "people/{$this->person('dagny.west')->id}/absences", [
            'from' => '2027-01-11', 'until' => '2027-01-16',
        ])->json('absences.0');
        self::assertSame(['2027-01-10T23:00:00Z', '2027-01-15T23:00:00Z'], [$days['from'], $days['until']], 'from midnight in Berlin');
        $this->inForce(self::asking([['who' => self::CLEA] + self::DAYS]));
        $first = $this->quote();
        self::assertSame(['clea.harrow'], $this->asked(), 'she is still there');
        $this->passTo('2026-11-25T08:00:00Z');
        self::assertSame(['dagny.west'], $this->asked(), 'what waited for her goes to her deputy as she leaves');
        self::assertStringContainsString('Dagny West is asked for Clea Harrow, who is absent', $this->told($first['id']));
        $mine = $this->as('dagny.west', 'GET', 'sign-offs')->json('signOffs.0.seats');
        self::assertSame('Clea Harrow', end($mine)['standsFor']);
        $this->quote(['subject' => 'Moss']);
        self::assertSame(['dagny.west'], $this->asked());
        $this->passTo('2026-12-02T18:00:00Z');
        self::assertFalse($this->person('clea.harrow')->away);
        $this->quote(['subject' => 'Sedge']);
        self::assertSame(['clea.harrow'], $this->asked());
    }

    /** A deputy decides for somebody, which is said; once that somebody is back, it is theirs again, and the deputy hears no more of it. */
    public function test_who_was_absent_takes_back_what_their_deputy_was_asked(): void
    {
        $this->limited('clea.harrow', ['deputyId' => 'dagny.west']);
        $this->as('ines.okafor', 'POST', "people/{$this->person('clea.harrow')->id}/absences", [
            'from' => '2026-11-24T00:00:00Z', 'until' => '2026-11-26T08:00:00Z',
        ])->assertCreated();
        $this->settle();
        $remind = ['remind' => ['amount' => 1, 'unit' => 'day'], 'within' => ['amount' => 14, 'unit' => 'day']];
        $this->inForce(self::asking([['who' => self::CLEA] + $remind]));
        $decided = $this->quote();
        self::assertNull($this->say('dagny.west', 'yes', $this->latest()->id, ['comment' => 'Fine']));
        self::assertStringContainsString('Dagny West agreed for Clea Harrow: “Fine”', $this->told($decided['id']));
        $waits = $this->quote(['subject' => 'Moss']);
        self::assertSame(['dagny.west'], $this->asked());
        $this->passTo('2026-11-26T09:00:00Z');
        self::assertSame(['clea.harrow'], $this->asked());
        self::assertStringContainsString('Clea Harrow is back, and is asked instead of Dagny West', $this->told($waits['id']));
        $before = $this->mailTo('dagny.west');
        $this->passTo('2026-11-30T09:00:00Z');
        self::assertSame($before, $this->mailTo('dagny.west'), 'she is reminded no more');
        self::assertGreaterThan(1, $this->mailTo('clea.harrow'));
        self::assertNotNull($this->say('dagny.west', 'yes', $this->latest()->id), 'and decides no more');
        self::assertNull($this->say('clea.harrow', 'yes', $this->latest()->id));
    }

    private function mailTo(string $handle): int
    {
        return DB::table('messages')->where('recipients', 'like',
            "%{$this->person($handle)->email}%")->whereNotNull('sign_off_id')->count();
    }

    public function test_who_leaves_and_who_gets_another_manager_is_asked_no_more(): void
    {
        $boss = ['kind' => 'people', 'people' => [['kind' => 'manager', 'of' => self::OWNER]]];
        $this->inForce(self::asking([['who' => $boss] + self::DAYS]));
        $quote = $this->quote();
        self::assertSame(['clea.harrow'], $this->asked());
        $this->limited('jonas.pike', ['managerId' => 'dagny.west']);
        $this->settle();
        self::assertSame(['dagny.west'], $this->asked());
        $this->limited('dagny.west', ['active' => false]);
        $this->settle();
        self::assertSame(['helmi.rowan'], $this->asked(), 'who stood in for her takes over');
        $this->limited('helmi.rowan', ['active' => false]);
        $this->settle();
        self::assertSame(['viktor.sand'], $this->asked(), 'where nobody takes over, the next above');
        $told = $this->told($quote['id']);
        self::assertStringContainsString('Dagny West is asked instead of Clea Harrow: the way leads there now', $told);
        self::assertStringContainsString('Helmi Rowan is asked instead of Dagny West', $told);
        self::assertNotNull($this->say('clea.harrow', 'yes', $this->latest()->id), 'whoever is asked no more decides nothing');
        self::assertStringContainsString('changed what is kept of Jonas Pike', (string) $this->as(
            'ines.okafor', 'GET', 'ledger',
        )->getContent());
    }

    public function test_a_manager_tree_with_a_ring_and_a_gap_finds_somebody_or_the_fallback(): void
    {
        Person::query()->where('handle', 'edda.marlow')->update(['manager_id' => $this->person('jonas.pike')->id]);
        $this->inForce(self::asking([['who' => ['kind' => 'up_to_limit', 'from' => self::OWNER, 'field' => 'net']] + self::DAYS]));
        $this->quote(['amount' => '900000']);
        self::assertSame(['clea.harrow', 'viktor.sand', 'edda.marlow'], $this->asked(), 'nobody’s limit suffices, and the ring ends');
        Person::query()->where('handle', 'clea.harrow')->update(['manager_id' => null]);
        $this->quote(['subject' => 'Moss', 'owner' => $this->person('clea.harrow')->id], 'clea.harrow');
        self::assertSame(['tomas.weld'], $this->asked(), 'nobody is above her, so the fallback is asked');
    }

    public function test_a_question_is_put_back_and_time_stands_still_until_it_is_answered(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA, 'late' => 'decline'] + self::DAYS]));
        $quote = $this->quote();
        $id = $this->latest()->id;
        $due = $this->latest()->seats[0]->due_at;
        $ask = fn (string $handle, string $question): TestResponse => $this->as($handle, 'POST', "sign-offs/{$id}/ask", [
            'question' => $question,
        ]);
        $this->assertRefused($ask('clea.harrow', ' '), 422, 'no_comment');
        $this->assertRefused($ask('emil.crane', 'Why?'), 404, 'not_found');
        $ask('clea.harrow', 'Do they stay three years?')->assertOk()->assertJsonPath('seats.0.asksBack', true);
        self::assertSame(
            'Clea Harrow asks about Quote '.$this->number($quote).', Ferns',
            DB::table('messages')->latest('id')->value('subject'),
        );
        $this->passTo('2026-11-26T08:40:00Z');
        $reply = fn (string $handle, string $answer): TestResponse => $this->as(
            $handle, 'POST', "sign-offs/{$id}/answer-back", ['place' => 0, 'answer' => $answer],
        );
        $this->assertRefused($reply('clea.harrow', 'Yes'), 403, 'not_allowed');
        $seat = $reply('jonas.pike', 'They do')->assertOk()->json('seats.0');
        self::assertSame([false, ['Do they stay three years?', 'They do']], [$seat['asksBack'], array_column($seat['talk'], 'text')]);
        self::assertEquals($due?->modify('+2 days'), $this->latest()->seats[0]->due_at, 'the time it took is added');
        $this->assertRefused($reply('jonas.pike', 'Again'), 409, 'no_question');
        // A question that nobody answers keeps it open no longer than there was to answer.
        $ask('clea.harrow', 'And four?')->assertOk();
        $this->passTo('2026-12-31T00:00:00Z');
        self::assertSame('declined', $this->latest()->status->value);
    }

    public function test_it_is_handed_to_somebody_who_may_take_it(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA, 'task' => true] + self::DAYS]));
        $quote = $this->quote();
        $id = $this->latest()->id;
        $task = fn (string $handle): ?string => DB::table('tasks')->where('assignee_id', $this->person($handle)->id)->value('status');
        self::assertSame('open', $task('clea.harrow'));
        self::assertSame(
            'Sign off: Quote '.$this->number($quote).', Ferns',
            $this->as('clea.harrow', 'GET', 'tasks')->json('tasks.0.title') ?? DB::table('tasks')->value('title'),
        );
        $this->assertRefused(
            $this->as('clea.harrow', 'POST', 'tasks/'.DB::table('tasks')->max('id').'/complete'), 409, 'wrong_state',
        );
        $give = fn (string $to): TestResponse => $this->as('clea.harrow', 'POST', "sign-offs/{$id}/hand-over", [
            'to' => $to, 'comment' => 'You know them',
        ]);
        $this->assertRefused($give('jonas.pike'), 422, 'cannot_be_given');
        $this->assertRefused($give('nobody.here'), 422, 'unknown_value', '/to');
        $give('ulla.verne')->assertOk();
        self::assertSame([['ulla.verne'], 'cancelled', 'open'], [$this->asked(), $task('clea.harrow'), $task('ulla.verne')]);
        self::assertStringContainsString('Clea Harrow gave it to Ulla Verne: “You know them”', $this->told($quote['id']));
        self::assertNull($this->say('ulla.verne', 'yes', $id));
        self::assertSame('done', $task('ulla.verne'));
    }

    public function test_whoever_has_a_role_and_is_there_is_asked(): void
    {
        $this->inForce(self::asking([['who' => ['kind' => 'role', 'role' => 'manager'], 'needed' => 1]]));
        $away = $this->person('clea.harrow')->id;
        $this->as('ines.okafor', 'POST', "people/{$away}/absences", [
            'from' => '2026-11-25T00:00:00Z', 'until' => '2026-12-02T00:00:00Z',
        ])->assertCreated();
        $this->passTo('2026-11-25T08:00:00Z');
        $quote = $this->quote();
        $managers = array_values(array_diff(Person::query()->where('role', 'manager')->pluck('handle')->all(), ['clea.harrow']));
        self::assertGreaterThan(1, count($managers));
        self::assertEqualsCanonicalizing($managers, $this->asked());
        $this->say($managers[0], 'yes', $this->latest()->id);
        self::assertSame('agreed', $this->latest()->status->value);
        self::assertStringStartsWith('Signed off by', $this->comments($quote['id'])[0]);
    }

    public function test_what_follows_each_step_and_each_end_names_who_decided(): void
    {
        $step = static fn (int $step, string $text): array => ['kind' => 'comment', 'text' => $text, 'at' => [
            'kind' => 'step_agreed', 'line' => 'asked', 'step' => $step, 'amount' => 0, 'unit' => 'day',
        ]];
        $rule = self::asking([['who' => self::CLEA], ['who' => ['kind' => 'team', 'team' => 'Finance'], 'needed' => 2]]);
        array_push($rule['lines'], $step(1, 'First by {sign_off.decider}: {sign_off.comment}'), $step(2, 'Then {sign_off.agreed}'), [
            'kind' => 'send_message', 'channel' => 'app', 'to' => [['kind' => 'deciders', 'who' => 'yes']], 'subject' => 'It was declined',
            'body' => '<p>By <span data-merge="sign_off.decider">who decided last</span></p>',
            'at' => ['kind' => 'signed_off', 'line' => 'asked', 'status' => 'declined', 'amount' => 0, 'unit' => 'day'],
        ]);
        $this->inForce($rule);
        $quote = $this->quote();
        $id = $this->latest()->id;
        $this->say('clea.harrow', 'yes', $id, ['comment' => 'Good name']);
        self::assertSame(['First by Clea Harrow: Good name'], $this->comments($quote['id']));
        $this->say('ulla.verne', 'yes', $id);
        self::assertSame('waiting', $this->latest()->status->value, 'two of Finance have to agree');
        $this->say('noor.elding', 'yes', $id);
        self::assertSame(
            [
                'First by Clea Harrow: Good name', 'Signed off by Clea Harrow, Ulla Verne, Noor Elding',
                'Then Clea Harrow, Ulla Verne, Noor Elding',
            ],
            $this->sorted($this->comments($quote['id'])),
        );
        $other = $this->quote(['subject' => 'Moss']);
        $this->say('clea.harrow', 'yes', $this->latest()->id);
        foreach (['ulla.verne', 'noor.elding'] as $handle) {
            $this->say($handle, 'no', $this->latest()->id, ['comment' => 'No money']);
        }
        $note = DB::table('messages')->where('record_id', $other['id'])->where('subject', 'It was declined')->get();
        self::assertSame([$this->person('clea.harrow')->id], $note->pluck('person_id')->all(), 'those who had agreed are told');
        self::assertStringContainsString('By Noor Elding', $note[0]->text);
    }

    public function test_lines_follow_the_first_yes_each_yes_and_whichever_end_it_comes_to(): void
    {
        $comment = static fn (string $text, array $at): array => ['kind' => 'comment', 'text' => $text, 'at' => $at];
        $yes = static fn (string $who): array => [
            'kind' => 'people_agree', 'line' => 'asked', 'who' => $who, 'amount' => 0, 'unit' => 'day',
        ];
        $that = static fn (string $status, string $called = 'asked'): array => [
            'that' => ['kind' => 'all', 'of' => [['kind' => 'sign_off_is', 'called' => $called, 'status' => $status]]],
        ];
        $over = ['kind' => 'signed_off', 'line' => 'asked', 'status' => 'over', 'amount' => 0, 'unit' => 'day',
        ];
        $note = static fn (string $text): array => ['kind' => 'comment', 'text' => $text];
        $rule = self::asking([
            ['who' => ['kind' => 'team', 'team' => 'Finance'], 'needed' => 2], ['who' => self::CLEA],
        ]);
        $rule['lines'] = [
            $rule['lines'][0],
            $comment('First: {sign_off.decider}', $yes('first')), $comment('Yes of {sign_off.decider}', $yes('each')),
            $comment('Another: never', ['kind' => 'once_true'] + $that('agreed', 'other')),
            ['kind' => 'if', 'at' => $over] + $that('agreed'), $note('It is agreed'),
            ['kind' => 'or_if'] + $that('declined'), $note('It is declined'),
            ['kind' => 'or_if'] + $that('timed_out'), $note('It timed out'),
        ];
        $this->inForce($rule);
        $this->inForce([
            'name' => 'Another rule hears it', 'on' => 'quote', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [$comment('Heard', ['kind' => 'once_true'] + $that('agreed'))],
        ]);
        $quote = $this->quote();
        $id = $this->latest()->id;
        $this->say('ulla.verne', 'yes', $id);
        $said = ['First: Ulla Verne', 'Yes of Ulla Verne'];
        self::assertSame($said, $this->sorted($this->comments($quote['id'])), 'others are still asked');
        $this->say('noor.elding', 'yes', $id);
        $this->say('clea.harrow', 'yes', $id);
        self::assertSame(
            [$said[0], 'Heard', 'It is agreed', 'Yes of Clea Harrow', 'Yes of Noor Elding', $said[1]],
            $this->sorted($this->comments($quote['id'])),
        );
        $named = fn (string $name, string $status): int => $this->as('ines.okafor', 'GET', 'records/quote?'.http_build_query([
            'filter' => (string) json_encode(['kind' => 'sign_off_is', 'called' => $name, 'status' => $status]),
        ]))->assertOk()->json('total');
        self::assertSame([1, 0], [$named('asked', 'agreed'), $named('other', 'agreed')]);

        $other = $this->quote(['subject' => 'Moss']);
        $this->say('ulla.verne', 'yes', $this->latest()->id);
        while ($this->latest()->status->value === 'waiting') {
            self::assertNull($this->say($this->asked()[0], 'no', $this->latest()->id, ['comment' => 'No money']));
        }
        self::assertContains('It is declined', $this->comments($other['id']));
        self::assertNotContains('It is agreed', $this->comments($other['id']));
        self::assertContains('Yes of Ulla Verne', $this->comments($other['id']));
    }

    /** @param  array<string, mixed>  $set */
    private function limited(string $handle, array $set): void
    {
        $this->as('ines.okafor', 'PATCH', "people/{$this->person($handle)->id}", $set)->assertOk();
    }

    /** @param  array<string, mixed>  $quote */
    private function number(array $quote): string
    {
        return $quote['number'] ?? 'Q-'.str_pad((string) $quote['id'], 4, '0', STR_PAD_LEFT);
    }

    /**
     * @param  list<string>  $texts
     * @return list<string>
     */
    private function sorted(array $texts): array
    {
        sort($texts);

        return $texts;
    }
}
