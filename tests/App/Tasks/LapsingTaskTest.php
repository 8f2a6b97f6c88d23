<?php

declare(strict_types=1);

namespace Tests\App\Tasks;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** Nothing asks for a task that has lost its point: its line says when it lapses, and what waits for it goes with it. */
final class LapsingTaskTest extends TimeTestCase
{
    private const RULE = [
        'name' => 'Ask again', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'], 'fires' => ['kind' => 'becomes_true'],
        'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'waiting']]],
        'lines' => [
            [
                'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ask about {number}', 'key' => 'ask',
                'due' => ['amount' => 2, 'unit' => 'day'], 'lapses' => ['kind' => 'is_not', 'field' => 'status', 'value' => 'waiting'],
            ],
            ['kind' => 'comment', 'text' => 'asked', 'at' => ['kind' => 'done', 'line' => 'ask', 'amount' => 0, 'unit' => 'day']],
        ],
    ];

    public function test_a_task_lapses_with_the_change_that_takes_its_point(): void
    {
        $this->inForce(self::RULE);
        $ticket = $this->ticket()['record']['id'];
        $this->becomes($ticket, ['status' => 'waiting']);
        $task = (int) DB::table('tasks')->value('id');
        $this->becomes($ticket, ['priority' => 'high']);
        self::assertSame('open', DB::table('tasks')->value('status'));
        $this->becomes($ticket, ['status' => 'open']);

        $this->as('bram.castellan', 'GET', "tasks/{$task}")->assertOk()->assertJsonPath('status', 'lapsed')
            ->assertJsonPath('outcome', 'Status is not Waiting on customer')->assertJsonPath('doneBy', null);
        self::assertSame([], $this->as('bram.castellan', 'GET', 'tasks')->json('tasks'));
        self::assertSame(['1/1' => 'struck: the task has lapsed'], $this->lines($ticket));
        $entry = DB::table('entries')->where('kind', 'task_lapsed')->sole();
        self::assertSame(DB::table('entries')->where('kind', 'changed')->max('id'), $entry->cause_id);
        $account = $this->as('bram.castellan', 'GET', "records/ticket/{$ticket}/account")->json('entries');
        $told = collect($account)->firstWhere('number', $entry->id);
        self::assertSame('Ask again', $told['head']['strong']);
        self::assertSame("Status is not Waiting on customer.\nBram Castellan need not do it.", $told['detail']);

        // It falls due no more, nobody can do it, and whoever wants it all the same opens it again.
        $this->passTo('2026-12-01T08:00:00Z');
        self::assertSame(0, DB::table('entries')->where('kind', 'task_due')->count());
        $this->assertRefused($this->as('bram.castellan', 'POST', "tasks/{$task}/complete"), 409, 'wrong_state');
        $this->as('bram.castellan', 'POST', "tasks/{$task}/reopen")->assertOk()->assertJsonPath('outcome', '');
        $this->becomes($ticket, ['status' => 'closed']);
        self::assertSame('open', DB::table('tasks')->value('status'), 'who opened it wants it, whatever the rule says');
    }

    public function test_a_task_of_an_older_page_lapses_by_what_that_page_says(): void
    {
        $rule = $this->inForce(self::RULE);
        $ticket = $this->ticket(['status' => 'waiting'])['record']['id'];
        $draft = $this->as('ines.okafor', 'GET', "rules/{$rule}")->json();
        $file = self::RULE;
        unset($file['lines'][0]['lapses']);
        $saved = $this->as('ines.okafor', 'PUT', "rules/{$rule}/draft", ['file' => $file, 'version' => $draft['draftVersion'] ?? 0])
            ->assertOk()->json();
        $this->as('ines.okafor', 'POST', "rules/{$rule}/publish", ['version' => $saved['draftVersion']])->assertOk();
        $new = $this->ticket(['status' => 'waiting'])['record']['id'];
        foreach ([$ticket, $new] as $id) {
            $this->becomes($id, ['status' => 'closed']);
        }
        self::assertSame(['lapsed', 'open'], DB::table('tasks')->orderBy('id')->pluck('status')->all());
    }

    public function test_a_task_that_would_lapse_at_once_is_not_given(): void
    {
        $file = self::RULE;
        $file['lines'][0]['lapses'] = ['kind' => 'is', 'field' => 'status', 'value' => 'closed'];
        $file['lines'] = [$file['lines'][0] + ['at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day']]];
        unset($file['lines'][0]['key']);
        $this->inForce($file);
        $closed = $this->ticket(['status' => 'waiting'])['record']['id'];
        $waiting = $this->ticket(['status' => 'waiting'])['record']['id'];
        $this->becomes($closed, ['status' => 'closed']);
        $this->passTo('2026-12-01T08:00:00Z');
        self::assertSame([$waiting], DB::table('tasks')->pluck('record_id')->all());
        $did = json_decode((string) DB::table('entries')->where(['kind' => 'line', 'record_id' => $closed])->value('data'), true)['did'];
        self::assertSame(['its task would lapse at once: Status is Closed'], array_column($did, 'why'));
    }

    public function test_a_death_between_the_change_and_its_tasks_leaves_neither(): void
    {
        $this->inForce(self::RULE);
        $ticket = $this->ticket(['status' => 'waiting'])['record'];
        DB::listen(static function (\Illuminate\Database\Events\QueryExecuted $query): void {
            if (str_starts_with($query->sql, 'update `tasks`')) {
                throw new \RuntimeException('The machine dies.');
            }
        });
        $this->as('bram.castellan', 'PATCH', "records/ticket/{$ticket['id']}", [
            'version' => $ticket['version'], 'values' => ['status' => 'open'],
        ])->assertServerError();
        self::assertSame(['open', 'waiting'], [
            DB::table('tasks')->value('status'), DB::table('records_ticket')->where('id', $ticket['id'])->value('status'),
        ]);
    }
}
