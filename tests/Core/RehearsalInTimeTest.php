<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Record\EventKind;
use VividLedger\Rehearse\PaperEntry;
use VividLedger\Rehearse\Rehearsal;
use VividLedger\Rehearse\Script;
use VividLedger\Rehearse\WhatIf\FieldsChange;
use VividLedger\Rehearse\WhatIf\TaskIsDone;
use VividLedger\Rehearse\WhatIf\WhatIf;
use VividLedger\Rehearse\WhatIf\WordArrives;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Opening;
use VividLedger\Rule\Trigger\OpeningKind;

/**
 * What time brings about in a rehearsal: lines that hang on dates and tasks, and other rules that a date, silence or a timetable sets off.
 */
final class RehearsalInTimeTest extends TestCase
{
    private const START = '2026-11-24T08:40:00Z';

    public function test_a_line_that_hangs_on_a_date_moves_with_it(): void
    {
        $line = [
            'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Soon',
            'at' => ['kind' => 'date', 'field' => 'due', 'amount' => -2, 'unit' => 'day', 'time' => '09:00'],
        ];
        self::assertSame(['line 2026-12-08T08:00:00Z'], $this->told([$this->rule(['lines' => [$line]])], [], 'line'));
        $moved = new FieldsChange($this->at(3), ['due' => '2026-12-20']);
        self::assertSame(
            ['retimed 2026-11-27T08:40:00Z', 'line 2026-12-18T08:00:00Z'],
            $this->told([$this->rule(['lines' => [$line]])], [$moved], 'line', 'retimed'),
        );
        $cleared = new FieldsChange($this->at(3), ['due' => null]);
        self::assertSame(
            ['retimed 2026-11-27T08:40:00Z'],
            $this->told([$this->rule(['lines' => [$line]])], [$cleared], 'line', 'retimed'),
            'without a date it waits',
        );
    }

    public function test_a_line_waits_for_a_task_and_comes_early_or_not_at_all(): void
    {
        $lines = [
            [
                'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring', 'due' => ['amount' => 2, 'unit' => 'day'],
                'key' => 'ring',
            ],
            World::set('code', 'DONE') + ['at' => ['kind' => 'done', 'line' => 'ring', 'amount' => 1, 'unit' => 'day']],
            World::set('code', 'LATE') + ['at' => ['kind' => 'late', 'line' => 'ring', 'amount' => 1, 'unit' => 'day']],
        ];
        self::assertSame(
            ['line 2026-11-27T08:40:00Z'],
            $this->told([$this->rule(['lines' => $lines])], [], 'line'),
            'left undone it is late',
        );
        self::assertSame(
            ['task_done 2026-11-25T08:40:00Z', 'line 2026-11-26T08:40:00Z'],
            $this->told([$this->rule(['lines' => $lines])], [new TaskIsDone($this->at(1), 1)], 'line', 'task_done'),
            'done in time it is never late',
        );
    }

    public function test_other_rules_are_set_off_by_dates_silence_and_timetables(): void
    {
        $later = [
            'lines' => [
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Last',
                    'at' => ['kind' => 'after', 'amount' => 30, 'unit' => 'day'],
                ],
            ],
        ];
        $comment = [
            'lines' => [['kind' => 'comment', 'text' => 'Seen']], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'every_time'],
        ];
        $own = $this->rule($later);
        $with = fn (array $when, WhatIf ...$whatIfs): array => $this->told(
            [$own, $this->rule(['name' => 'Other', 'when' => $when] + $comment, 2)],
            array_values($whatIfs),
            'fired',
        );
        self::assertSame(
            ['fired 2026-11-24T08:40:00Z', 'fired 2026-12-10T08:00:00Z'],
            $with(['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day', 'time' => '09:00']),
        );
        self::assertSame(
            ['fired 2026-11-24T08:40:00Z', 'fired 2026-12-01T08:40:00Z'],
            $with(['kind' => 'quiet', 'of' => 'change', 'amount' => 7, 'unit' => 'day']),
        );
        self::assertSame(
            ['fired 2026-11-24T08:40:00Z', 'fired 2026-12-06T08:40:00Z'],
            $with(['kind' => 'quiet', 'of' => 'change', 'amount' => 7, 'unit' => 'day'], new FieldsChange($this->at(5), ['code' => 'A'])),
            'a change begins the silence anew',
        );
        self::assertSame(
            [
                'fired 2026-11-24T08:40:00Z', 'fired 2026-11-30T07:00:00Z', 'fired 2026-12-07T07:00:00Z', 'fired 2026-12-14T07:00:00Z',
                'fired 2026-12-21T07:00:00Z',
            ],
            $with(['kind' => 'timetable', 'rrule' => 'FREQ=WEEKLY;BYDAY=MO', 'time' => '08:00', 'from' => '2026-11-01']),
        );
        self::assertSame(
            ['fired 2026-11-24T08:40:00Z', 'fired 2026-11-29T08:40:00Z'],
            $with(['kind' => 'reply'], new WordArrives($this->at(5), EventKind::Reply, 'Hello')),
        );
    }

    public function test_a_series_that_nothing_ends_is_said_to_go_on(): void
    {
        $series = $this->rule([
            'lines' => [
                [
                    'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Still',
                    'at' => ['kind' => 'every', 'amount' => 2, 'unit' => 'week', 'times' => 100],
                ],
            ],
        ]);
        $played = (new Rehearsal(World::schema(), (new World)->zone()))->play($this->script([]), $series, [$series], $this->world());
        self::assertTrue($played->goesOn);
        self::assertLessThanOrEqual($played->from->modify('+'.Rehearsal::MOST_DAYS.' days'), $played->until);
        self::assertNotSame([], $played->left);
    }

    public function test_one_rule_sets_off_another_in_turn_and_chains_are_stopped(): void
    {
        $ping = $this->rule([
            'name' => 'Ping', 'when' => ['kind' => 'changed', 'fields' => ['status']], 'onlyIf' => ['kind' => 'all', 'of' => []],
            'fires' => ['kind' => 'every_time'], 'lines' => [World::set('priority', 'high')],
        ]);
        $pong = $this->rule(
            [
                'name' => 'Pong', 'when' => ['kind' => 'changed', 'fields' => ['priority']], 'onlyIf' => ['kind' => 'all', 'of' => []],
                'fires' => ['kind' => 'every_time'], 'lines' => [World::set('status', 'closed')],
            ],
            2,
        );
        $played = (new Rehearsal(World::schema(), (new World)->zone()))->play($this->script([]), $ping, [$ping, $pong], $this->world());
        self::assertSame(
            ['changed', 'fired Ping', 'fired Pong', 'stopped Ping'],
            array_map(static fn (PaperEntry $entry): string => trim("{$entry->told->kind} {$entry->told->rule?->name}"), $played->entries),
        );
        self::assertSame(
            [null, 1, 2, 3],
            array_map(static fn (PaperEntry $entry): ?int => $entry->cause, $played->entries),
            'each entry knows what led to it',
        );
    }

    public function test_a_refusal_ends_it_where_it_stands(): void
    {
        $guard = $this->rule([
            'name' => 'Guard', 'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'refuse', 'message' => 'Not now']],
        ]);
        $played = (new Rehearsal(World::schema(), (new World)->zone()))->play($this->script([]), $guard, [$guard], $this->world());
        self::assertSame('refused', $played->entries[count($played->entries) - 1]->told->kind);
        self::assertSame('open', $played->after?->value('status'), 'the save is undone');
    }

    /**
     * @param  list<Rule>  $rules
     * @param  list<WhatIf>  $whatIfs
     * @return list<string> kind and moment of the entries of some kinds
     */
    private function told(array $rules, array $whatIfs, string ...$kinds): array
    {
        $played = (new Rehearsal(World::schema(), (new World)->zone()))->play($this->script($whatIfs), $rules[0], $rules, $this->world());

        return array_values(array_map(
            static fn (PaperEntry $entry): string => "{$entry->told->kind} ".$entry->at->setTimezone(new \DateTimeZone('UTC'))
                ->format('Y-m-d\TH:i:s\Z'),
            array_filter($played->entries, static fn (PaperEntry $entry): bool => in_array($entry->told->kind, $kinds, true)),
        ));
    }

    /** @param  list<WhatIf>  $whatIfs */
    private function script(array $whatIfs): Script
    {
        return new Script(
            World::ticket(['due' => '2026-12-10']),
            new Opening(OpeningKind::Changed, new \DateTimeImmutable(self::START), [], ['status' => 'waiting']),
            $whatIfs,
            3,
        );
    }

    private function at(int $days): \DateTimeImmutable
    {
        return (new \DateTimeImmutable(self::START))->modify("+{$days} days");
    }

    private function world(): World
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket(['due' => '2026-12-10']);

        return $world;
    }

    /** @param  array<string, mixed>  $file */
    private function rule(array $file, int $id = 1): Rule
    {
        return $this->world()->rule(
            $file + [
                'name' => 'Own', 'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'waiting']]],
                'fires' => ['kind' => 'becomes_true'],
            ],
            $id,
        );
    }
}
