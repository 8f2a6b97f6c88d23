<?php

declare(strict_types=1);

namespace Tests\App\Timing;

use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;

/** Lines in cases, where cases meet what else moves lines: dates of tasks, new pages, and a save that is refused. */
final class CaseStoriesTest extends TimeTestCase
{
    /** Kinds of line that have a story in this file. */
    public const TOLD = ['if', 'or_if', 'otherwise', 'in_all_cases'];

    private const RULE = [
        'name' => 'Three days later', 'on' => 'ticket', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'once_per_record'],
        'lines' => [
            ['kind' => 'if', 'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day'], 'that' => [
                'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']],
            ]],
            [
                'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring', 'key' => 'ring',
                'due' => ['amount' => 1, 'unit' => 'day'],
            ],
            [
                'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'late',
                'at' => ['kind' => 'late', 'line' => 'ring', 'amount' => 1, 'unit' => 'day'],
            ],
            ['kind' => 'comment', 'text' => 'two days on', 'at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'day']],
            ['kind' => 'or_if', 'that' => ['kind' => 'is', 'field' => 'priority', 'value' => 'high']],
            ['kind' => 'comment', 'text' => 'high'],
            ['kind' => 'otherwise'],
            ['kind' => 'comment', 'text' => 'neither'],
            ['kind' => 'in_all_cases'],
            ['kind' => 'comment', 'text' => 'a week on', 'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'week']],
        ],
    ];

    public function test_what_is_known_later_counts_from_then_and_moves_with_its_task(): void
    {
        $this->inForce(self::RULE);
        $ticket = $this->ticket(['priority' => 'normal'])['record'];
        self::assertSame(['0/1' => '2026-11-27 08:40:00', '9/1' => '2026-12-01 08:40:00'], $this->lines($ticket['id']));
        $ticket = $this->change($ticket, ['priority' => 'urgent'])['record'];
        $this->passTo('2026-11-27T09:00:00Z');
        $known = ['0/1' => 'inked', '2/1' => '2026-11-29 08:40:00', '3/1' => '2026-11-29 08:40:00', '9/1' => '2026-12-01 08:40:00'];
        self::assertEquals($known, $this->lines($ticket['id']));
        $number = DB::table('entries')->where('record_type', 'ticket')->where('record_id', $ticket['id'])->where('kind', 'line')->max('id');
        $entry = $this->as('ines.okafor', 'GET', "ledger/{$number}")->json('entry');
        self::assertSame(
            ['If Priority is Urgent', 'task'],
            [$entry['outcomes'][0]['said'], $entry['outcomes'][1]['kind']],
        );

        $task = DB::table('tasks')->where('record_id', $ticket['id'])->value('id');
        $this->as('priya.lindqvist', 'PATCH', 'tasks', ['ids' => [$task], 'dueAt' => '2026-12-03T16:00:00Z'])->assertOk();
        self::assertSame('2026-12-04 16:00:00', $this->lines($ticket['id'])['2/1']);
        $this->change($ticket, ['priority' => 'high']);
        $this->passTo('2026-12-20T00:00:00Z');
        self::assertSame(['two days on', 'a week on'], $this->commented($ticket['id']), 'which case it is stays as it was known');
    }

    public function test_a_new_page_moves_what_is_in_a_case_and_adds_nothing_to_it(): void
    {
        $rule = $this->inForce(self::RULE);
        $known = $this->ticket(['priority' => 'urgent'])['record'];
        $this->passTo('2026-11-28T08:00:00Z');
        $open = $this->ticket(['priority' => 'low'])['record'];
        $file = self::RULE;
        $file['lines'][0]['at']['amount'] = 4;
        $file['lines'][3]['at']['amount'] = 5;
        array_splice($file['lines'], 8, 0, [
            ['kind' => 'comment', 'text' => 'later', 'at' => ['kind' => 'after', 'amount' => 9, 'unit' => 'day']],
        ]);
        $version = $this->as('ines.okafor', 'GET', "rules/{$rule}")->json('draftVersion');
        $version = $this->as('ines.okafor', 'PUT', "rules/{$rule}/draft", ['version' => $version, 'file' => $file])->json('draftVersion');
        $this->as('ines.okafor', 'POST', "rules/{$rule}/publish", ['version' => $version, 'move' => true])->assertOk();
        self::assertSame('2026-12-02 08:40:00', $this->lines($known['id'])['3/1'], 'five days after the case was known');
        self::assertArrayNotHasKey('8/1', $this->lines($known['id']));
        self::assertSame('2026-12-02 08:00:00', $this->lines($open['id'])['0/1']);
        $this->passTo('2026-12-31T00:00:00Z');
        self::assertSame(['a week on', 'two days on'], $this->commented($known['id']));
        self::assertSame(['neither', 'a week on', 'later'], $this->commented($open['id']));
    }

    public function test_what_a_new_page_puts_into_a_case_comes_with_it_and_what_it_waits_for_may_be_true_already(): void
    {
        $plain = ['kind' => 'comment', 'text' => 'two days on', 'at' => ['kind' => 'after', 'amount' => 9, 'unit' => 'day']];
        $rule = $this->inForce(['lines' => [$plain, $plain]] + self::RULE);
        $ticket = $this->ticket(['priority' => 'high'])['record'];
        $isHigh = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'priority', 'value' => 'high']]];
        $version = $this->as('ines.okafor', 'GET', "rules/{$rule}")->json('draftVersion');
        $version = $this->as('ines.okafor', 'PUT', "rules/{$rule}/draft", ['version' => $version, 'file' => ['lines' => [
            ['kind' => 'if', 'that' => $isHigh, 'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day']],
            $plain,
            ['kind' => 'in_all_cases'],
            ['kind' => 'comment', 'text' => 'is high', 'at' => ['kind' => 'once_true', 'that' => $isHigh]],
        ]] + self::RULE])->json('draftVersion');
        $this->as('ines.okafor', 'POST', "rules/{$rule}/publish", ['version' => $version, 'move' => true])->assertOk();
        self::assertSame(
            ['0/1' => '2026-11-27 08:40:00', '1/1' => 'struck: the new page has no such line', '3/1' => '2026-11-24 08:40:00'],
            $this->lines($ticket['id']),
        );
        $this->passTo('2026-12-31T00:00:00Z');
        self::assertSame(['is high', 'two days on'], $this->commented($ticket['id']));
    }

    public function test_a_save_makes_true_what_a_line_waits_for_and_it_comes_once(): void
    {
        $this->inForce(['lines' => [
            ['kind' => 'comment', 'text' => 'urgent now', 'at' => ['kind' => 'once_true', 'that' => [
                'kind' => 'is', 'field' => 'priority', 'value' => 'urgent',
            ], 'within' => ['amount' => 3, 'unit' => 'day']]],
        ]] + self::RULE);
        [$one, $other] = [$this->ticket(['priority' => 'low'])['record'], $this->ticket(['priority' => 'low'])['record']];
        $this->passTo('2026-11-25T08:00:00Z');
        $one = $this->change($one, ['priority' => 'urgent'])['record'];
        self::assertSame(['0/1' => '2026-11-25 08:00:00'], $this->lines($one['id']));
        $this->change($one, ['priority' => 'low']);
        $this->passTo('2026-12-31T00:00:00Z');
        self::assertSame([['urgent now'], []], [$this->commented($one['id']), $this->commented($other['id'])]);
        self::assertSame(['0/1' => 'struck: what it waited for did not become true in time'], $this->lines($other['id']));
    }

    public function test_a_case_refuses_the_save_and_leaves_nothing_of_the_lines_before_it(): void
    {
        $this->inForce(['lines' => [
            ['kind' => 'comment', 'text' => 'before'],
            ['kind' => 'if', 'that' => ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent']],
            ['kind' => 'refuse', 'message' => 'Ring instead', 'field' => 'priority'],
            ['kind' => 'otherwise'],
            ['kind' => 'comment', 'text' => 'fine'],
        ]] + self::RULE);
        $customer = $this->customer();
        $ticket = ['subject' => 'Leak', 'customer' => $customer['id'], 'status' => 'open'];
        $this->assertRefused(
            $this->as('bram.castellan', 'POST', 'records/ticket', ['values' => $ticket + ['priority' => 'urgent']]), 422, 'refused_by_rule',
            '/values/priority',
        );
        self::assertSame(0, DB::table('comments')->count());
        $made = $this->created('ticket', $ticket + ['priority' => 'low'])['record'];
        self::assertSame(['before', 'fine'], $this->commented($made['id']));
    }

    /** @return list<string> */
    private function commented(int $ticket): array
    {
        return DB::table('comments')->where('record_id', $ticket)->orderBy('id')->pluck('text')->all();
    }
}
