<?php

declare(strict_types=1);

namespace Tests\App;

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
