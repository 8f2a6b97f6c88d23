<?php

declare(strict_types=1);

namespace Tests\App\Today;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** The first screen: one's own day, one's team with what slips, and the rules with what did not go as it should. */
final class TodayTest extends AppTestCase
{
    public function test_ones_own_day_holds_nothing_of_others(): void
    {
        $ticket = $this->ticket()['record']['id'];
        $this->give($ticket, 'lena.abara', 'Mine, late', '2026-11-24T07:00:00Z');
        $this->give($ticket, 'lena.abara', 'Mine, today', '2026-11-24T15:00:00Z');
        $this->give($ticket, 'milo.trent', 'Not mine', '2026-11-24T07:00:00Z');
        $today = $this->as('lena.abara', 'GET', 'today')->assertOk()->json();
        self::assertSame(['Mine, late', 'Mine, today'], array_column($today['tasks'], 'title'));
        self::assertSame([1, 1, 0], [$today['late'], $today['dueToday'], $today['team']]);
        $this->as('lena.abara', 'GET', 'today/rules')->assertForbidden();
        self::assertSame([[], []], array_values($this->as('lena.abara', 'GET', 'today/team')->assertOk()->json()));
    }

    public function test_a_team_is_everybody_below_and_what_slips_comes_first(): void
    {
        $lead = $this->person('priya.lindqvist');
        $over = $this->person('viktor.sand');
        DB::table('people')->where('id', $lead->id)->update(['manager_id' => $over->id]);
        $ticket = $this->ticket()['record']['id'];
        $this->give($ticket, 'milo.trent', 'Long late', '2026-11-10T07:00:00Z');
        $this->give($ticket, 'milo.trent', 'Late', '2026-11-24T07:00:00Z');
        $this->give($ticket, 'lena.abara', 'Today', '2026-11-24T15:00:00Z');
        $this->give($ticket, 'lena.abara', 'Later', '2026-12-24T15:00:00Z');
        $this->give($ticket, 'jonas.pike', 'Another team’s', '2026-11-10T07:00:00Z');
        $this->as('lena.abara', 'POST', "people/{$this->person('lena.abara')->id}/absences", [
            'from' => '2026-11-24T08:00:00Z', 'until' => '2026-12-01T08:00:00Z',
        ])->assertSuccessful();
        $read = fn (string $handle): array => $this->as($handle, 'GET', 'today/team')->assertOk()->json();
        $team = $read('priya.lindqvist');
        $loads = array_column($team['people'], null, 'name');
        self::assertSame('Milo Trent', $team['people'][0]['name'], 'who has most that is late');
        self::assertSame([2, 2, 0], [$loads['Milo Trent']['open'], $loads['Milo Trent']['late'], $loads['Milo Trent']['dueToday']]);
        self::assertSame([2, 0, 1], [$loads['Lena Abara']['open'], $loads['Lena Abara']['late'], $loads['Lena Abara']['dueToday']]);
        self::assertSame(['2026-12-01T08:00:00Z', null], [$loads['Lena Abara']['awayUntil'], $loads['Milo Trent']['awayUntil']]);
        self::assertArrayNotHasKey('Jonas Pike', $loads);
        self::assertArrayNotHasKey('Priya Lindqvist', $loads, 'oneself is not one’s team');
        self::assertSame(['Long late', 'Late'], array_column($team['slipping'], 'title'));
        // Whoever stands above the lead has them all, and the lead.
        $all = array_column($read('viktor.sand')['people'], 'name');
        self::assertSame([], array_diff([...array_keys($loads), 'Priya Lindqvist'], $all));
        // Who has left is nobody's load.
        DB::table('people')->where('handle', 'milo.trent')->update(['active' => false]);
        self::assertNotContains('Milo Trent', array_column($read('priya.lindqvist')['people'], 'name'));
        // A circle of managers ends.
        DB::table('people')->where('id', $over->id)->update(['manager_id' => $this->person('lena.abara')->id]);
        self::assertNotContains('Priya Lindqvist', array_column($read('priya.lindqvist')['people'], 'name'));
    }

    public function test_the_rules_say_what_did_not_go_as_it_should(): void
    {
        $rule = $this->inForce([
            'name' => 'Soon', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'], 'lines' => [[
                'kind' => 'comment', 'text' => 'Hello', 'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'hour'],
            ]],
        ]);
        foreach (range(1, 3) as $count) {
            $this->ticket();
        }
        $said = fn (): array => $this->as('ines.okafor', 'GET', 'today/rules')->assertOk()->collect()
            ->except('rules', 'entries', 'days')->all();
        self::assertSame([3, 0, 0, 0, 0, 0, 0], array_values($said()), 'three fired, and nothing went wrong');
        // The clock has gone on, and nobody has done the lines; one could not be done at all.
        $this->clockAt('2026-11-24T12:00:00Z');
        DB::table('scheduled_lines')->where('rule_id', $rule)->orderBy('id')->limit(1)->update(['status' => 'failed']);
        self::assertSame(['fired' => 3, 'behind' => 2, 'tooLate' => 0, 'setAside' => 1], array_slice($said(), 0, 4));
        $days = fn (): array => array_slice($this->as('ines.okafor', 'GET', 'today/rules')->json('rules.0.days'), -2);
        self::assertSame([0, 3], $days());
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'paused'])->assertSuccessful();
        self::assertSame(3, $said()['fired'], 'what a rule did counts also when it is paused');
        $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'in_force'])->assertSuccessful();
        $this->clockAt('2026-11-25T12:00:00Z');
        self::assertSame([3, 0], $days(), 'yesterday is over');
    }

    private function give(int $ticket, string $to, string $title, string $due): void
    {
        $this->as('priya.lindqvist', 'POST', 'tasks', [
            'title' => $title, 'recordType' => 'ticket', 'recordId' => $ticket, 'assigneeId' => $to, 'dueAt' => $due,
        ])->assertCreated();
    }
}
