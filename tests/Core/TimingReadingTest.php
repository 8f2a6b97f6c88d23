<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;

/** Time in rule files: how it reads, and how what makes no sense is refused at its word. */
final class TimingReadingTest extends TestCase
{
    private const TASK = ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null, 'key' => 'look'];

    private const NOTE = ['kind' => 'comment', 'text' => 'x'];

    /**
     * @return iterable<string, array{array<string, mixed>, string, string}> the file, the margin of the last line, and the whole rule
     *     read aloud
     */
    public static function readings(): iterable
    {
        $line = static fn (array $at): array => ['lines' => [self::TASK, ['at' => $at] + self::NOTE]];
        yield 'after' => [
            $line(['kind' => 'after', 'amount' => 2, 'unit' => 'working_day']), '+2 working days', 'after 2 working days comment “x”',
        ];
        yield 'after at' => [
            $line(['kind' => 'after', 'amount' => 3, 'unit' => 'day', 'time' => '09:00', 'roll' => 'next']), '+3 days',
            'after 3 days comment “x”, at 09:00, or the next working day',
        ];
        yield 'before a date' => [
            $line(['kind' => 'date', 'field' => 'due', 'amount' => -10, 'unit' => 'day', 'clock' => 'owner']), '10 days before',
            'comment “x”, 10 days before Due by the owner’s clock',
        ];
        yield 'on a date' => [$line(['kind' => 'date', 'field' => 'due', 'amount' => 0, 'unit' => 'day']), 'on Due', 'comment “x”, on Due'];
        yield 'when done' => [
            $line([
                'kind' => 'done', 'line' => 'look', 'amount' => 1, 'unit' => 'day', 'timeOut' => ['amount' => 5, 'unit' => 'day'],
                'then' => 'anyway',
            ]),
            '1 day after done', 'comment “x”, 1 day after the task of line 1 is done, or after 5 days anyway',
        ];
        yield 'when late' => [
            $line(['kind' => 'late', 'line' => 'look', 'amount' => 2, 'unit' => 'working_hour']), '2 working hours late',
            'comment “x”, 2 working hours after the task of line 1 fell due undone',
        ];
        yield 'every' => [
            $line(['kind' => 'every', 'amount' => 1, 'unit' => 'week', 'times' => 5]), 'each week',
            'comment “x”, every week, at most 5 times',
        ];
        yield 'too late' => [
            [
                'lines' => [
                    self::TASK,
                    [
                        'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'], 'tooLate' => ['amount' => 2, 'unit' => 'hour'],
                    ] + self::NOTE,
                ],
            ],
            '+1 day', 'after 1 day comment “x”, too late after 2 hours',
        ];
        yield 'until and never' => [
            $line(['kind' => 'after', 'amount' => 1, 'unit' => 'day']) + [
                'until' => [
                    'kind' => 'any',
                    'of' => [['kind' => 'happened', 'event' => 'reply'], ['kind' => 'is', 'field' => 'status', 'value' => 'closed']],
                ],
                'never' => ['outside' => ['from' => '08:00', 'to' => '18:00']],
            ],
            '+1 day', 'comment “x”, until it gets a reply or Status is Closed, never outside 08:00–18:00.',
        ];
        yield 'a date arrives' => [
            ['when' => ['kind' => 'date', 'field' => 'due', 'amount' => -75, 'unit' => 'day', 'time' => '09:00', 'yearly' => true]],
            'at once', 'When a Ticket comes to 75 days before Due at 09:00, every year,',
        ];
        yield 'quiet' => [
            ['when' => ['kind' => 'quiet', 'of' => 'value', 'field' => 'status', 'value' => 'waiting', 'amount' => 2, 'unit' => 'day']],
            'at once', 'When a Ticket once it has kept Status at Waiting for 2 days,',
        ];
        yield 'a timetable' => [
            ['when' => ['kind' => 'timetable', 'rrule' => 'FREQ=MONTHLY;BYMONTHDAY=-1', 'time' => '08:00', 'from' => '2026-11-01']],
            'at once', 'When a Ticket is looked at every month on the last day at 08:00 one by one,',
        ];
    }

    /** @param  array<string, mixed>  $file */
    #[DataProvider('readings')]
    public function test_time_reads_as_a_sentence(array $file, string $margin, string $aloud): void
    {
        $page = (new World)->read($file);
        self::assertSame([], $page->problems);
        $margins = array_map(
            static fn ($row): string => $row->margin,
            array_values(array_filter($page->rows, static fn ($row): bool => $row->part->value === 'line')),
        );
        self::assertSame($margin, end($margins));
        self::assertStringContainsString($aloud, $page->aloud());
        self::assertNotNull($page->rule);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function refusals(): iterable
    {
        $at = static fn (array $at): array => ['lines' => [self::TASK, ['at' => $at] + self::NOTE]];
        yield 'no such timing' => [$at(['kind' => 'some time']), '/lines/1/at'];
        yield 'before the rule fired' => [$at(['kind' => 'after', 'amount' => -1, 'unit' => 'day']), '/lines/1/at'];
        yield 'too far' => [$at(['kind' => 'after', 'amount' => 999999, 'unit' => 'year']), '/lines/1/at'];
        yield 'no unit' => [$at(['kind' => 'after', 'amount' => 1, 'unit' => 'moon']), '/lines/1/at'];
        yield 'no time of day' => [$at(['kind' => 'after', 'amount' => 1, 'unit' => 'day', 'time' => '25:00']), '/lines/1/at'];
        yield 'hours at a time' => [$at(['kind' => 'after', 'amount' => 1, 'unit' => 'hour', 'time' => '09:00']), '/lines/1/at'];
        yield 'no date' => [$at(['kind' => 'date', 'field' => 'status', 'amount' => 1, 'unit' => 'day']), '/lines/1/at'];
        yield 'no such line' => [$at(['kind' => 'done', 'line' => 'nowhere', 'amount' => 0, 'unit' => 'day']), '/lines/1/at'];
        yield 'a time-out of nothing' => [
            $at(['kind' => 'done', 'line' => 'look', 'amount' => 0, 'unit' => 'day', 'timeOut' => ['amount' => 0, 'unit' => 'day']]),
            '/lines/1/at',
        ];
        yield 'every nothing' => [$at(['kind' => 'every', 'amount' => 0, 'unit' => 'day', 'times' => 3]), '/lines/1/at'];
        yield 'without end' => [$at(['kind' => 'every', 'amount' => 1, 'unit' => 'day']), '/until'];
        yield 'a line below' => [
            ['lines' => [['at' => ['kind' => 'done', 'line' => 'look', 'amount' => 0, 'unit' => 'day']] + self::NOTE, self::TASK]],
            '/lines/0/at',
        ];
        yield 'a name twice' => [['lines' => [self::TASK, self::TASK]], '/lines/1/key'];
        yield 'refuse later' => [
            ['lines' => [['kind' => 'refuse', 'message' => 'No', 'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day']]]],
            '/lines/0/at',
        ];
        yield 'never too late' => [
            [
                'lines' => [
                    [
                        'at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day'], 'tooLate' => ['amount' => 0, 'unit' => 'day'],
                    ] + self::NOTE,
                ],
            ],
            '/lines/0/tooLate',
        ];
        yield 'no ladder' => [['lines' => [['kind' => 'escalate', 'ladder' => 'Nowhere']]], '/lines/0/ladder'];
        yield 'a rung without a person' => [['lines' => [['kind' => 'escalate', 'rungs' => [['do' => ['tell']]]]]], '/lines/0/rungs/0/to'];
        yield 'hours that end before they start' => [
            [
                'lines' => [['at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day']] + self::NOTE],
                'never' => ['outside' => ['from' => '18:00', 'to' => '08:00']],
            ],
            '/never/outside',
        ];
        yield 'no messages at all' => [
            [
                'lines' => [['at' => ['kind' => 'after', 'amount' => 1, 'unit' => 'day']] + self::NOTE],
                'never' => ['moreThan' => ['messages' => 0, 'amount' => 1, 'unit' => 'day']],
            ],
            '/never/moreThan',
        ];
        yield 'day 31 of every month' => [
            ['when' => ['kind' => 'timetable', 'rrule' => 'FREQ=MONTHLY;BYMONTHDAY=31', 'time' => '08:00', 'from' => '2026-11-01']],
            '/when',
        ];
        yield 'an end before the start' => [
            ['when' => ['kind' => 'timetable', 'rrule' => 'FREQ=DAILY;UNTIL=20261001', 'time' => '08:00', 'from' => '2026-11-01']], '/when',
        ];
        yield 'every second' => [
            ['when' => ['kind' => 'timetable', 'rrule' => 'FREQ=SECONDLY', 'time' => '08:00', 'from' => '2026-11-01']], '/when',
        ];
        yield 'a day that does not exist' => [
            ['when' => ['kind' => 'timetable', 'rrule' => 'FREQ=DAILY', 'time' => '08:00', 'from' => '2026-02-30']], '/when',
        ];
        yield 'quiet of what' => [['when' => ['kind' => 'quiet', 'of' => 'peace', 'amount' => 1, 'unit' => 'day']], '/when/of'];
        yield 'a list of one' => [['lines' => [['kind' => 'send_list', 'subject' => 'List', 'columns' => ['subject']]]], '/lines/0'];
        yield 'together without a list' => [
            [
                'when' => [
                    'kind' => 'timetable', 'rrule' => 'FREQ=DAILY', 'time' => '08:00', 'from' => '2026-11-01', 'per' => ['kind' => 'owner'],
                ],
            ],
            '/lines/0',
        ];
        yield 'a list without columns' => [
            [
                'when' => [
                    'kind' => 'timetable', 'rrule' => 'FREQ=DAILY', 'time' => '08:00', 'from' => '2026-11-01', 'per' => ['kind' => 'owner'],
                ],
                'lines' => [['kind' => 'send_list', 'subject' => 'List', 'columns' => []]],
            ],
            '/lines/0/columns',
        ];
    }

    /** @param  array<string, mixed>  $file */
    #[DataProvider('refusals')]
    public function test_what_makes_no_sense_is_refused_at_its_word(array $file, string $at): void
    {
        $page = (new World)->read($file);
        self::assertNull($page->rule);
        self::assertContains(
            $at,
            array_map(static fn ($problem): string => $problem->at, $page->problems),
            (string) json_encode($page->problems),
        );
    }
}
