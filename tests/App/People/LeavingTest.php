<?php

declare(strict_types=1);

namespace Tests\App\People;

use App\Models\Outbound\StoredMessage;
use App\Models\SignOffs\SignOffSeat;
use App\Models\Slips\SlipTurnRow;
use App\Store\Outbound\LetterLinks;
use App\Store\SignOffs\SignOffLink;
use App\Store\Slips\SlipLink;
use App\Work\Timing\LineWorker;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Somebody leaves, and another takes over; they come back, and what nobody has touched since is theirs again. */
final class LeavingTest extends AppTestCase
{
    public function test_all_that_is_theirs_goes_over_in_one_step_and_comes_back(): void
    {
        DB::table('people')->where('handle', 'bram.castellan')->update(['deputy_id' => $this->person('milo.trent')->id]);
        [$bram, $lena, $priya] = array_map(fn (string $handle): int => $this->person($handle)->id, [
            'bram.castellan', 'lena.abara', 'priya.lindqvist',
        ]);
        $this->inForce([
            'name' => 'Names Bram', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'named', 'handle' => 'bram.castellan'], 'title' => 'Look']],
        ]);
        $told = $this->inForce([
            'name' => 'New owner', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['owner']],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'Now of {owner}']],
        ]);
        $tickets = [$this->ticket()['record']['id'], $this->ticket()['record']['id'], $this->ticket()['record']['id']];
        DB::table('people')->where('id', $lena)->update(['manager_id' => $bram]);
        $this->as('lena.abara', 'GET', "people/{$bram}/leaving")->assertForbidden();
        $preview = $this->as('ines.okafor', 'GET', "people/{$bram}/leaving")->assertOk()->json();
        self::assertContains(['type' => 'Tickets', 'count' => 3], $preview['records']);
        self::assertSame([3, 1, ['Names Bram']], [$preview['tasks'], $preview['people'], $preview['rules']]);
        self::assertSame(0, DB::table('entries')->where('kind', 'person_left')->count(), 'looked at only');
        foreach ([$bram, 'ghost', null] as $bad) {
            self::assertSame(422, $this->as('ines.okafor', 'POST', "people/{$bram}/leave", ['to' => $bad])->status());
        }

        $this->as('ines.okafor', 'POST', "people/{$bram}/leave", ['to' => 'lena.abara'])->assertNoContent();
        self::assertSame([$lena], DB::table('records_ticket')->whereIn('id', $tickets)->distinct()->pluck('owner')->all());
        self::assertSame([$lena], DB::table('tasks')->where('title', 'Look')->distinct()->pluck('assignee_id')->all());
        self::assertSame(3, $this->firings($told), 'rules answer as they answer any change');
        self::assertSame($priya, (int) DB::table('people')->where('id', $lena)->value('manager_id'), 'nobody manages themselves');
        $this->assertRefused($this->signIn('bram.castellan@larkmoss.example'), 422, 'wrong_password', '/password');
        $entry = DB::table('entries')->where('kind', 'person_left')->value('id');
        self::assertSame(
            ['Bram Castellan', 'has left; Lena Abara takes over'],
            array_values($this->as('ines.okafor', 'GET', "ledger/{$entry}")->json('entry.headInLedger')),
        );

        $this->becomes($tickets[0], ['owner' => $priya]);
        $done = DB::table('tasks')->where('title', 'Look')->orderBy('id')->value('id');
        $this->as('lena.abara', 'POST', "tasks/{$done}/complete")->assertOk();
        $this->as('ines.okafor', 'POST', "people/{$bram}/return")->assertNoContent();
        self::assertSame(
            [$priya, $bram, $bram],
            DB::table('records_ticket')->whereIn('id', $tickets)->orderBy('id')->pluck('owner')->all(),
            'what somebody has changed since stays',
        );
        self::assertSame([$lena, $bram, $bram], DB::table('tasks')->where('title', 'Look')->orderBy('id')->pluck('assignee_id')->all());
        self::assertSame($this->person('milo.trent')->id, $this->person('bram.castellan')->deputy_id, 'who stood in before does so again');
        $this->assertRefused($this->as('ines.okafor', 'POST', "people/{$bram}/return"), 409, 'wrong_state');
        $this->signIn('bram.castellan@larkmoss.example')->assertOk();
    }

    /**
     * Rules that name whoever leaves go on with those who take over; so do their sign-offs and their slips, and their links let
     * nobody act.
     */
    public function test_rules_sign_offs_and_slips_go_on_with_whoever_takes_over(): void
    {
        $named = ['kind' => 'named', 'handle' => 'bram.castellan'];
        $rule = $this->inForce(['name' => 'Names Bram', 'on' => 'ticket', 'when' => ['kind' => 'created'],
            'fires' => ['kind' => 'every_time'],
            'lines' => [
                ['kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]]],
                ['kind' => 'give_task', 'to' => $named, 'title' => 'Later', 'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day']],
                ['kind' => 'sign_off', 'steps' => [['who' => ['kind' => 'people', 'people' => [$named]]]]],
                ['kind' => 'slip', 'to' => [['kind' => 'person', 'person' => $named]], 'subject' => 'Well?', 'body' => '<p>Well?</p>',
                    'asks' => [['kind' => 'tick', 'label' => 'Well?']]],
            ]]);
        $made = ['subject' => 'Ficus', 'customer' => $this->customer()['id'], 'priority' => 'normal', 'status' => 'open'];
        $before = $this->created('ticket', $made, 'milo.trent')['record']['id'];
        $turn = SlipTurnRow::query()->firstOrFail();
        $turn->update(['token_hash' => SlipLink::hash($link = SlipLink::token($turn))]);
        $letter = StoredMessage::query()->whereNotNull('seat_id')->firstOrFail();
        $decides = substr(LetterLinks::filled($letter, SignOffLink::MARK), 8);
        $bram = $this->person('bram.castellan')->id;
        $preview = $this->as('ines.okafor', 'GET', "people/{$bram}/leaving")->assertOk()->json();
        self::assertSame([1, 1], [$preview['signOffs'], $preview['slips']]);
        $this->as('ines.okafor', 'POST', "people/{$bram}/leave", ['to' => 'lena.abara'])->assertNoContent();

        $lena = $this->person('lena.abara');
        self::assertSame([$lena->id], SignOffSeat::query()->where('state', 'waiting')->pluck('person_id')->all());
        self::assertSame(['passed_on', 'waiting'], DB::table('slip_turns')->orderBy('place')->pluck('state')->all());
        self::assertSame([$lena->id, $lena->email], [
            SlipTurnRow::query()->latest('id')->value('person_id'),
            SlipTurnRow::query()->latest('id')->firstOrFail()->mail['address'] ?? '',
        ]);
        $this->get("/slip/{$link}")->assertNotFound();
        $this->post("/slip/{$link}", ['answers' => ['1']])->assertNotFound();
        $this->assertRefused($this->json('POST', "/api/decide/{$decides}", ['answer' => 'yes']), 404, 'not_found');
        self::assertSame('waiting', DB::table('sign_offs')->value('status'));
        $told = DB::table('entries')->where(['kind' => 'named_left', 'rule_id' => $rule])->value('id');
        self::assertSame(['Names Bram', 'names Bram Castellan, who has left; Lena Abara takes over'], array_values(
            $this->as('ines.okafor', 'GET', "ledger/{$told}")->assertOk()->json('entry.headInLedger'),
        ));
        self::assertSame(
            'Bram Castellan, whom “Names Bram” names, has left. Lena Abara takes over.',
            DB::table('messages')->where(['person_id' => $this->person('ines.okafor')->id, 'entry_id' => $told])->value('subject'),
        );
        $page = $this->as('ines.okafor', 'GET', "rules/{$rule}")->assertOk()->json();
        self::assertSame('in_force', $page['status']);
        $remarks = $this->as('ines.okafor', 'POST', 'remarks', ['file' => $page['file'], 'rule' => $rule])->assertOk()->json();
        self::assertContains('Bram Castellan has left the company.', array_column($remarks, 'message'));

        $this->clockAt('2026-11-25T09:00:00Z');
        $this->forgetEverything();
        $this->app->make(LineWorker::class)->work(100);
        self::assertSame([$lena->id], DB::table('tasks')->where('title', 'Later')->pluck('assignee_id')->all(),
            'what was pencilled in is done');
        $after = $this->created('ticket', $made, 'milo.trent');
        self::assertSame('needed', $after['record']['values']['review'], 'and the rule goes on');
        self::assertSame([2, 0], [$this->firings($rule), DB::table('entries')->where('kind', 'line_failed')->count()]);
        self::assertSame(2, SignOffSeat::query()->where(['state' => 'waiting', 'person_id' => $lena->id])->count());
        self::assertNotSame($before, $after['record']['id']);
    }

    /** Whatever is too much for one step is refused before anything has changed. */
    public function test_more_tasks_than_one_step_can_take_are_refused(): void
    {
        $bram = $this->person('bram.castellan')->id;
        $ticket = $this->ticket()['record']['id'];
        foreach (array_chunk(range(1, 2001), 500) as $some) {
            DB::table('tasks')->insert(array_map(static fn (int $nth): array => ['title' => "No {$nth}", 'record_type' => 'ticket',
                'record_id' => $ticket, 'assignee_id' => $bram, 'given_at' => '2026-11-24 08:00:00', 'entry_id' => 1], $some));
        }
        $this->assertRefused($this->as('ines.okafor', 'POST', "people/{$bram}/leave", ['to' => 'lena.abara']), 409, 'too_many');
        self::assertSame(1, DB::table('people')->where('id', $bram)->value('active'));
    }

    public function test_where_a_rule_refuses_nothing_goes_over(): void
    {
        $bram = $this->person('bram.castellan')->id;
        [$first] = [$this->ticket()['record']['id'], $this->ticket(['priority' => 'urgent'])['record']];
        $this->inForce([
            'name' => 'Urgent stays', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['owner']], 'onlyIf' => [
                'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']],
            ], 'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'refuse', 'message' => 'Finish it first', 'field' => 'owner']],
        ]);
        $refused = $this->as('ines.okafor', 'POST', "people/{$bram}/leave", ['to' => 'lena.abara'])->assertUnprocessable();
        self::assertStringContainsString('Finish it first', (string) $refused->getContent());
        self::assertSame([$bram, 1], [
            DB::table('records_ticket')->where('id', $first)->value('owner'), DB::table('people')->where('id', $bram)->value('active'),
        ]);
        self::assertSame(0, DB::table('entries')->where('kind', 'person_left')->count());
    }

    public function test_whoever_keeps_the_house_alone_does_not_leave(): void
    {
        DB::table('people')->where('handle', 'joost.perrin')->update(['role' => 'member']);
        $ines = $this->person('ines.okafor')->id;
        $this->assertRefused($this->as('ines.okafor', 'POST', "people/{$ines}/leave", ['to' => 'joost.perrin']), 422, 'invalid_values');
        self::assertSame(1, DB::table('people')->where('id', $ines)->value('active'));
    }
}
