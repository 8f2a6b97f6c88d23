<?php

declare(strict_types=1);

namespace Tests\App\SignOffs;

use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\SignOffTestCase;
use VividLedger\SignOff\SignOffStatus;

/** A record that is locked while a sign-off waits: for people, for rules, for lines; and free again at every end. */
final class SignOffLockTest extends SignOffTestCase
{
    private const WEEK = ['within' => ['amount' => 7, 'unit' => 'day']];

    private const NOTE = [
        'name' => 'Stage told', 'on' => 'quote', 'when' => ['kind' => 'changed', 'fields' => ['discount', 'stage']],
        'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'Seen at {discount}']],
    ];

    public function test_nobody_changes_what_is_being_signed_off(): void
    {
        $byHand = $this->inForce(['when' => ['kind' => 'by_hand'], 'name' => 'By hand'] + self::NOTE);
        $this->inForce(self::asking([['who' => self::CLEA] + self::WEEK], ['hold' => 'locked']));
        $quote = $this->quote();
        $id = $this->latest()->id;
        $entries = DB::table('entries')->count();
        foreach (['jonas.pike', 'clea.harrow', 'ines.okafor'] as $handle) {
            $said = $this->as($handle, 'PATCH', "records/quote/{$quote['id']}", [
                'version' => $quote['version'], 'values' => ['stage' => 'sent'],
            ]);
            $this->assertRefused($said, 409, 'locked');
            self::assertStringContainsString('is locked until Clea Harrow has said', (string) $said->getContent());
        }
        $gone = $this->as('ines.okafor', 'DELETE', "records/quote/{$quote['id']}", ['version' => $quote['version']]);
        $this->assertRefused($gone, 409, 'locked');
        self::assertStringContainsString('is locked', (string) $this->as('ines.okafor', 'POST', 'records/quote/several', [
            'records' => [['id' => $quote['id'], 'version' => $quote['version'], 'values' => ['stage' => 'sent']]],
        ])->getContent());
        $ran = $this->as('ines.okafor', 'POST', "rules/{$byHand}/run", ['recordType' => 'quote', 'records' => [$quote['id']]])->json();
        self::assertSame([0, true], [$ran['fired'], str_contains($ran['records'][0]['said'] ?? $ran['results'][0]['said'], 'locked')]);
        self::assertSame($entries, DB::table('entries')->whereNotIn('kind', ['by_hand'])->count(), 'nothing has happened');
        // What changes no field of it goes on.
        $this->as('jonas.pike', 'POST', "records/quote/{$quote['id']}/comments", ['text' => 'They called'])->assertCreated();
        self::assertNull($this->say('clea.harrow', 'yes', $id));
        $this->change($this->now('quote', $quote['id']), ['stage' => 'sent'], 'jonas.pike');
    }

    public function test_whoever_decides_corrects_what_they_may_and_rules_look_once_it_is_free(): void
    {
        $this->inForce(self::NOTE);
        $this->inForce(self::asking([['who' => self::CLEA, 'correct' => ['discount']] + self::WEEK], ['hold' => 'catch_up']));
        $quote = $this->quote();
        $signOff = $this->latest();
        $case = $this->as('clea.harrow', 'GET', "sign-offs/{$signOff->id}")->assertOk()->json();
        self::assertSame([['discount'], true], [$case['correct'], $case['signOff']['locks']]);
        self::assertContains(['label' => 'Discount', 'before' => 'empty', 'after' => '20.0 %'], $case['changed']);
        $say = fn (array $corrections): TestResponse => $this->as('clea.harrow', 'POST', 'sign-offs/answers', [
            'ids' => [$signOff->id], 'answer' => 'yes', 'comment' => 'But 15', 'corrections' => $corrections,
        ]);
        $this->assertRefused($say(['amount' => '1']), 403, 'not_allowed', '/corrections/amount');
        $this->assertRefused($say(['discount' => '900']), 422, 'invalid_values');
        self::assertSame(SignOffStatus::Waiting, $signOff->refresh()->status, 'what is refused decides nothing');
        $say(['discount' => '15'])->assertOk();
        $this->settle();
        self::assertSame('15.0', $this->now('quote', $quote['id'])['values']['discount']);
        self::assertSame(['Seen at 15.0 %', 'Signed off by Clea Harrow'], array_values(array_unique($this->comments($quote['id']))));
        $told = $this->told($quote['id']);
        self::assertStringContainsString('Stage told was kept from it by a lock: It is locked while a sign-off waits. '
            .'The rule looks again once it is free.', $told);
        self::assertSame(1, DB::table('sign_offs')->count(), 'what asked for it does not ask again about its own correction');
        self::assertSame(0, DB::table('held_changes')->count());
    }

    public function test_rules_that_are_not_to_look_again_do_not(): void
    {
        $this->inForce(self::NOTE);
        $this->inForce(self::asking([['who' => self::CLEA, 'correct' => ['discount']] + self::WEEK], ['hold' => 'locked']));
        $quote = $this->quote();
        $id = $this->latest()->id;
        $this->as('clea.harrow', 'POST', 'sign-offs/answers', ['ids' => [$id], 'answer' => 'yes', 'corrections' => ['discount' => '15']]);
        $this->settle();
        self::assertSame(['Signed off by Clea Harrow'], $this->comments($quote['id']));
    }

    public function test_lines_that_fall_due_wait_until_it_is_free(): void
    {
        $this->inForce([
            'name' => 'Later', 'when' => ['kind' => 'created'],
            'lines' => [['kind' => 'comment', 'text' => 'A day later', 'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day']]],
        ] + self::NOTE);
        $this->inForce(self::asking([['who' => self::CLEA] + self::WEEK], ['hold' => 'locked']));
        $quote = $this->quote();
        $this->passTo('2026-11-27T00:00:00Z');
        self::assertSame([], $this->comments($quote['id']));
        self::assertSame('held', DB::table('scheduled_lines')->where('said', 'like', '%A day later%')->value('status'));
        $this->say('clea.harrow', 'yes', $this->latest()->id);
        self::assertSame(['A day later', 'Signed off by Clea Harrow'], array_values(array_unique($this->comments($quote['id']))));
    }

    public function test_a_lock_holds_for_what_falls_due_in_the_same_minute(): void
    {
        $dayLater = ['at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day']];
        $this->inForce(self::asking([['who' => self::CLEA] + self::WEEK], ['hold' => 'locked'] + $dayLater));
        $this->inForce(
            ['name' => 'Later', 'when' => ['kind' => 'created'], 'lines' => [['kind' => 'comment', 'text' => 'A day later'] + $dayLater]]
                + self::NOTE,
        );
        $quote = $this->quote();
        $this->passTo('2026-11-27T00:00:00Z');
        self::assertSame([SignOffStatus::Waiting, []], [$this->latest()->status, $this->comments($quote['id'])]);
        self::assertSame('held', DB::table('scheduled_lines')->where('said', 'like', '%A day later%')->value('status'));
        $this->say('clea.harrow', 'no', $this->latest()->id, ['comment' => 'Too much']);
        self::assertEqualsCanonicalizing(['A day later', 'Declined: Clea Harrow: Too much'], array_unique($this->comments($quote['id'])));
    }

    public function test_an_administrator_sets_it_free_with_a_reason_and_it_goes_on(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA] + self::WEEK], ['hold' => 'locked']));
        $quote = $this->quote();
        $id = $this->latest()->id;
        $unsaid = $this->as('ines.okafor', 'POST', "sign-offs/{$id}/unlock", ['reason' => ' ']);
        $this->assertRefused($unsaid, 422, 'invalid_values', '/reason');
        $this->assertRefused($this->as('jonas.pike', 'POST', "sign-offs/{$id}/unlock", ['reason' => 'Me']), 403, 'not_allowed');
        $this->as('ines.okafor', 'POST', "sign-offs/{$id}/unlock", ['reason' => 'The address was wrong'])->assertOk()
            ->assertJsonPath('locks', false)->assertJsonPath('status', 'waiting');
        $this->change($quote, ['subject' => 'Ferns and moss'], 'jonas.pike');
        self::assertStringContainsString('Ines Okafor released the lock: “The address was wrong”', $this->told($quote['id']));
        $this->assertRefused($this->as('ines.okafor', 'POST', "sign-offs/{$id}/unlock", ['reason' => 'Again']), 409, 'wrong_state');
        self::assertNull($this->say('clea.harrow', 'no', $id, ['comment' => 'Too much']));
        self::assertSame(['Declined: Clea Harrow: Too much'], $this->comments($quote['id']));
    }

    public function test_no_end_leaves_a_lock_behind(): void
    {
        $steps = [['who' => self::CLEA, 'within' => ['amount' => 1, 'unit' => 'day']]];
        $this->inForce(self::asking($steps, ['hold' => 'locked']));
        $quotes = ['withdrawn' => $this->quote(), 'timed_out' => $this->quote(['subject' => 'Moss'])];
        $this->as('jonas.pike', 'POST', 'sign-offs/'.DB::table('sign_offs')->min('id').'/withdraw')->assertOk();
        $this->settle();
        $this->passTo('2026-12-10T00:00:00Z');
        foreach ($quotes as $status => $quote) {
            self::assertSame($status, DB::table('sign_offs')->where('record_id', $quote['id'])->value('status'));
            $this->change($this->now('quote', $quote['id']), ['stage' => 'sent'], 'jonas.pike');
        }
        self::assertSame(0, DB::table('sign_offs')->where('released', false)->count());
    }

    public function test_a_rule_that_could_lock_a_record_for_good_is_not_put_in_force(): void
    {
        $file = self::asking([['who' => self::CLEA]], ['hold' => 'locked']);
        $rule = $this->as('ines.okafor', 'POST', 'rules', ['file' => $file])->assertCreated()->json();
        $refused = $this->as('ines.okafor', 'POST', "rules/{$rule['id']}/publish", ['version' => $rule['draftVersion']]);
        $this->assertRefused($refused, 422, 'blocked', '/lines/0/steps/0');
        self::assertSame('draft', $this->as('ines.okafor', 'GET', "rules/{$rule['id']}")->json('status'));
        $remarks = $this->as('ines.okafor', 'POST', 'remarks', ['file' => $file])->assertOk()->json();
        self::assertContains('blocks', array_column($remarks, 'level'));
    }

    public function test_changing_the_decisive_field_withdraws_and_asks_again(): void
    {
        $this->inForce(self::asking([['who' => self::CLEA]], [], [
            'fires' => ['kind' => 'every_time'], 'when' => ['kind' => 'changed', 'fields' => ['discount']],
        ]));
        $quote = $this->change($this->quote(['discount' => '0']), ['discount' => '20'], 'jonas.pike')['record'];
        $first = $this->latest()->id;
        $this->change($quote, ['discount' => '40'], 'jonas.pike');
        $this->settle();
        self::assertSame(['withdrawn', 'waiting'], DB::table('sign_offs')->orderBy('id')->pluck('status')->all());
        self::assertSame('It was withdrawn.', $this->say('clea.harrow', 'yes', $first));
        self::assertSame('A discount of 40.0 %', $this->latest()->why);
    }
}
