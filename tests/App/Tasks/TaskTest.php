<?php

declare(strict_types=1);

namespace Tests\App\Tasks;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;

/** Tasks that people give and do: to themselves and to others, as one's own and as a team's, with what came of them. */
final class TaskTest extends AppTestCase
{
    public function test_a_task_is_given_seen_by_its_team_and_done_with_what_came_of_it(): void
    {
        $this->inForce([
            'name' => 'Then', 'on' => 'ticket', 'when' => ['kind' => 'task_done'],
            'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'Somebody did it']],
        ]);
        $ticket = $this->ticket()['record'];
        $give = ['title' => 'Ring Marit', 'recordType' => 'ticket', 'recordId' => $ticket['id']];
        $task = $this->as('bram.castellan', 'POST', 'tasks', $give + [
            'dueAt' => '2026-12-01T09:00:00Z', 'assigneeId' => 'lena.abara', 'notes' => 'About the ficus', 'priority' => 'high',
        ])->assertCreated()->json();
        self::assertSame(['Ring Marit', 'lena.abara', null, 'high', '2026-12-01T09:00:00Z'], [
            $task['title'], $task['assigneeHandle'], $task['ruleName'], $task['priority'], $task['dueAt'],
        ]);
        $mine = $this->as('bram.castellan', 'POST', 'tasks', $give)->assertCreated()->json();
        self::assertSame('bram.castellan', $mine['assigneeHandle'], 'one’s own, if nothing else is said');

        self::assertSame([$task['id']], $this->tasks('lena.abara', 'mine'));
        $team = $this->person('lena.abara')->team;
        self::assertContains($task['id'], $this->tasks('lena.abara', 'team'));
        self::assertSame($this->person('bram.castellan')->team === $team, in_array($mine['id'], $this->tasks('lena.abara', 'team'), true));
        self::assertSame([], $this->tasks('rhea.colt', 'mine'));

        $account = $this->as('lena.abara', 'GET', "records/ticket/{$ticket['id']}/account")->assertOk()->json();
        self::assertContains('Ring Marit', array_column($account['ahead'], 'title'), 'its date is pencilled in');
        $given = array_values(array_filter($account['entries'], static fn (array $entry): bool => $entry['kind'] === 'task_given'))[1];
        self::assertSame('gave a task: “Ring Marit”', $given['head']['rest']);
        self::assertStringContainsString('Lena Abara', (string) json_encode($given, JSON_UNESCAPED_UNICODE));

        $this->as('rhea.colt', 'POST', "tasks/{$task['id']}/complete", ['outcome' => 'no'])->assertForbidden();
        $done = $this->as('lena.abara', 'POST', "tasks/{$task['id']}/complete", ['outcome' => 'They want three more'])->assertOk()->json();
        self::assertSame(['done', 'They want three more', 'Lena Abara'], [$done['status'], $done['outcome'], $done['doneBy']]);
        self::assertSame(1, DB::table('comments')->where('text', 'Somebody did it')->count(), 'rules hear of it');
        $entry = (int) DB::table('entries')->where('kind', 'task_done')->value('id');
        self::assertStringContainsString('They want three more', (string) $this->as('ines.okafor', 'GET', "ledger/{$entry}")->getContent());
    }

    public function test_tasks_of_one_line_know_of_each_other_and_the_week_is_that_of_the_calendar(): void
    {
        $person = static fn (string $handle): array => ['kind' => 'named', 'handle' => $handle];
        $this->inForce([
            'name' => 'Two of us', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'], 'lines' => [[
                'kind' => 'give_tasks', 'tasks' => [
                    ['to' => $person('lena.abara'), 'title' => 'Look'], ['to' => $person('bram.castellan'), 'title' => 'Write'],
                ],
            ], ['kind' => 'give_task', 'to' => $person('lena.abara'), 'title' => 'Ring', 'key' => 'ring']],
        ]);
        $this->ticket();
        $page = $this->as('lena.abara', 'GET', 'tasks')->assertOk()->json();
        $together = array_column($page['tasks'], 'together', 'title');
        self::assertSame(['Look' => [['Write', 'open', 'Bram Castellan']], 'Ring' => []], array_map(
            static fn (array $tasks): array => array_map(
                static fn (array $one): array => [$one['title'], $one['status'], $one['assignee']], $tasks,
            ),
            $together,
        ));
        $this->as('bram.castellan', 'POST', "tasks/{$together['Look'][0]['id']}/complete")->assertOk();
        self::assertSame('done', $this->as('lena.abara', 'GET', 'tasks')->json('tasks.0.together.0.status'));
        // Tuesday morning in Berlin.
        self::assertSame('2026-11-24T23:00:00Z', $page['week']['todayEnds']);
        self::assertSame('2026-11-27T23:00:00Z', $page['week']['weekEnds']);
    }

    public function test_the_bell_tells_of_what_came_since_one_last_looked(): void
    {
        $this->inForce([
            'name' => 'Note', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'], 'lines' => [[
                'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Look at {number}',
            ]],
        ]);
        $ticket = $this->ticket(['owner' => 'lena.abara'])['record'];
        $bell = fn (): array => $this->as('lena.abara', 'GET', 'notices')->assertOk()->json();
        self::assertSame([1, "Look at {$ticket['number']}", 'note', $ticket['number']], [
            $bell()['new'], $bell()['notices'][0]['title'], $bell()['notices'][0]['kind'], $bell()['notices'][0]['recordNumber'],
        ]);
        $this->clockAt('2026-11-30T09:00:00Z');
        $this->as('lena.abara', 'POST', 'notices/seen')->assertNoContent();
        self::assertSame([0, 1], [$bell()['new'], count($bell()['notices'])]);
        $this->clockAt('2026-11-30T10:00:00Z');
        $this->as('bram.castellan', 'POST', 'tasks', [
            'title' => 'Ring Marit', 'recordType' => 'ticket', 'recordId' => $ticket['id'], 'assigneeId' => 'lena.abara',
        ])->assertCreated();
        self::assertSame([1, 'Ring Marit', 'task'], [$bell()['new'], $bell()['notices'][0]['title'], $bell()['notices'][0]['kind']]);
        self::assertSame(0, $this->as('rhea.colt', 'GET', 'notices')->json('new'));
    }

    public function test_what_does_not_do_is_told_and_nothing_given(): void
    {
        $ticket = $this->ticket()['record']['id'];
        $give = ['title' => 'Ring', 'recordType' => 'ticket', 'recordId' => $ticket];
        $this->as('bram.castellan', 'POST', 'tasks', ['title' => ''] + $give)->assertStatus(422);
        $this->as('bram.castellan', 'POST', 'tasks', ['recordId' => 999999] + $give)->assertNotFound();
        $this->as('bram.castellan', 'POST', 'tasks', ['assigneeId' => 'nobody.here'] + $give)->assertStatus(422);
        $this->as('bram.castellan', 'POST', 'tasks', ['dueAt' => 'tomorrow'] + $give)->assertStatus(422);
        $this->as('odile.march', 'POST', 'tasks', $give)->assertForbidden();
        self::assertSame(0, DB::table('tasks')->count());
    }

    /** @return list<int> */
    private function tasks(string $who, string $whose): array
    {
        return array_column($this->as($who, 'GET', "tasks?whose={$whose}")->assertOk()->json('tasks'), 'id');
    }
}
