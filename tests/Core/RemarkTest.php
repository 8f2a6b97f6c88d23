<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\People\Who;
use VividLedger\Proofread\Census;
use VividLedger\Proofread\Proofreader;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Rule;
use VividLedger\Shape\Node;

/** What proofreading finds in a rule, where, and that following its advice makes it go. */
final class RemarkTest extends TestCase
{
    /**
     * @return iterable<string, array{array<mixed>, list<array<mixed>>, ?string, string}> the rule, the others, the code of the remark
     *     (null for none) and its place
     */
    public static function rules(): iterable
    {
        $is = static fn (string $field, mixed $value): array => ['kind' => 'is', 'field' => $field, 'value' => $value];
        $all = static fn (array ...$of): array => ['kind' => 'all', 'of' => $of];
        $changed = static fn (string $field, ?string $to = null): array => [
            'kind' => 'changed', 'fields' => [$field],
        ] + ($to === null ? [] : ['to' => $to]);
        $note = ['kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Look'];
        $later = static fn (array $line, int $days, ?string $time = null): array => $line + [
            'at' => ['kind' => 'after', 'amount' => $days, 'unit' => 'day'] + ($time === null ? [] : ['time' => $time]),
        ];
        $either = ['eitherOr' => 'Discounts'];
        $over = static fn (string $share): array => $all(['kind' => 'over', 'field' => 'share', 'value' => $share]);
        $ladder = static fn (array $person): array => [
            'kind' => 'escalate', 'rungs' => [['amount' => 1, 'unit' => 'day', 'to' => $person, 'do' => ['tell']]],
        ];

        yield 'a sound little rule' => [[], [], null, ''];
        yield 'a task for somebody who has left' => [
            ['lines' => [['kind' => 'give_task', 'title' => 'Look', 'to' => ['kind' => 'named', 'handle' => 'gone']]]], [],
            'names_who_left', '/lines/0/to',
        ];
        yield 'never' => [
            ['onlyIf' => $all($is('status', 'open'), ['kind' => 'over', 'field' => 'customer.open', 'value' => '5'])], [], 'never',
            '/onlyIf/of/1',
        ];
        yield 'always' => [
            [
                'onlyIf' => $all(
                    ['kind' => 'any', 'of' => [['kind' => 'ticked', 'field' => 'paid']]],
                    ['kind' => 'not_one_of', 'field' => 'status', 'values' => []],
                ),
            ],
            [], null, '',
        ];
        yield 'a contradiction' => [
            ['onlyIf' => $all($is('status', 'open'), $is('priority', 'low'), $is('status', 'closed'))], [], 'contradiction', '/onlyIf/of/2',
        ];
        yield 'no contradiction among alternatives' => [
            ['onlyIf' => ['kind' => 'any', 'of' => [$is('status', 'open'), $is('status', 'closed')]]], [], null, '',
        ];
        yield 'the trigger waits for what the conditions forbid' => [
            ['when' => $changed('status', 'closed'), 'onlyIf' => $all($is('status', 'open'))], [], 'never', '/when',
        ];
        yield 'what always holds never becomes true' => [
            ['when' => $changed('code'), 'fires' => ['kind' => 'becomes_true']], [], 'never', '/fires',
        ];
        yield 'on a new record it does' => [['fires' => ['kind' => 'becomes_true']], [], null, ''];
        yield 'a line that is never done' => [
            ['lines' => [World::set('priority', 'high') + ['onlyIf' => $all($is('status', 'open'), $is('status', 'closed'))]]], [],
            'contradiction', '/lines/0/onlyIf/of/1',
        ];
        yield 'shadowed' => [
            ['onlyIf' => $over('12')] + $either, [['name' => 'Twelve', 'onlyIf' => $over('12')] + $either], 'shadowed', '/onlyIf',
        ];
        yield 'not shadowed by a wider one, which comes after it' => [
            ['onlyIf' => $over('30')] + $either, [['name' => 'Twelve', 'onlyIf' => $over('12')] + $either], null, '',
        ];
        $under = static fn (string $share): array => ['kind' => 'under', 'field' => 'share', 'value' => $share];
        $from = static fn (string $share): array => ['kind' => 'over', 'field' => 'share', 'value' => $share];
        yield 'ranges that overlap' => [
            ['onlyIf' => $all($from('20'), $under('40'))] + $either,
            [['name' => 'Low', 'onlyIf' => $all($from('10'), $under('30'))] + $either], 'ranges_overlap', '/onlyIf',
        ];
        yield 'ranges with a gap between them' => [
            ['onlyIf' => $over('40')] + $either,
            [['name' => 'Low', 'onlyIf' => $all($from('10'), $under('30'))] + $either], 'range_gap', '/onlyIf',
        ];
        yield 'ranges side by side' => [
            ['onlyIf' => $over('30')] + $either,
            [['name' => 'Low', 'onlyIf' => $all($from('10'), ['kind' => 'at_most', 'field' => 'share', 'value' => '30'])] + $either],
            null, '',
        ];
        yield 'not shadowed in another order' => [
            ['onlyIf' => $over('12')] + $either, [['name' => 'Thirty', 'onlyIf' => $over('30')] + $either], null, '',
        ];
        yield 'not shadowed without a set' => [['onlyIf' => $over('30')], [['name' => 'Twelve', 'onlyIf' => $over('12')]], null, ''];
        yield 'rules that set each other off' => [
            ['when' => $changed('status'), 'lines' => [World::set('priority', 'high')]],
            [['name' => 'Back', 'when' => $changed('priority'), 'lines' => [World::set('status', 'open')]]], 'cycle', '/lines',
        ];
        yield 'a value that stops the circle' => [
            ['when' => $changed('status', 'closed'), 'lines' => [World::set('priority', 'high')]],
            [['name' => 'Back', 'when' => $changed('priority'), 'lines' => [World::set('status', 'open')]]], null, '',
        ];
        yield 'conditions that stop the circle' => [
            ['when' => $changed('status'), 'lines' => [World::set('priority', 'high')]],
            [
                [
                    'name' => 'Back', 'when' => $changed('priority'), 'onlyIf' => $all($is('priority', 'low')),
                    'lines' => [World::set('status', 'open')],
                ],
            ],
            null, '',
        ];
        yield 'two rules set a field differently' => [
            ['when' => $changed('status'), 'lines' => [World::set('priority', 'high')]],
            [
                [
                    'name' => 'Low', 'when' => $changed('status'), 'onlyIf' => $all($is('status', 'open')),
                    'lines' => [World::set('priority', 'low')],
                ],
            ],
            'clash', '/lines/0',
        ];
        yield 'they exclude each other' => [
            ['onlyIf' => $all($is('status', 'closed')), 'lines' => [World::set('priority', 'high')]],
            [['name' => 'Low', 'onlyIf' => $all($is('status', 'open')), 'lines' => [World::set('priority', 'low')]]], null, '',
        ];
        yield 'they set the same' => [
            ['lines' => [World::set('priority', 'high')]], [['name' => 'High', 'lines' => [World::set('priority', 'high')]]], null, '',
        ];
        yield 'its own echo' => [
            ['when' => $changed('since'), 'lines' => [World::set('since', ['kind' => 'now'])]], [], 'own_echo', '/when',
        ];
        yield 'a letter at each save' => [['lines' => [$note]], [], 'each_save', '/fires'];
        yield 'a letter when a field changes' => [['when' => $changed('status'), 'lines' => [$note]], [], null, ''];
        yield 'a series that nothing ends' => [
            [
                'fires' => ['kind' => 'becomes_true'],
                'lines' => [$note + ['at' => ['kind' => 'every', 'amount' => 2, 'unit' => 'day', 'times' => 9]]],
            ],
            [], 'no_until', '/lines/0',
        ];
        yield 'a chase that nothing ends' => [
            ['fires' => ['kind' => 'becomes_true'], 'lines' => [$later($note, 2), $later($note, 4)]], [], 'no_until', '/lines/1',
        ];
        $never = ['never' => ['outside' => ['from' => '08:00', 'to' => '18:00', 'workingDays' => true]],
            'fires' => ['kind' => 'once_per_record'], 'until' => $is('status', 'closed')];
        $apart = ['moreThan' => ['messages' => 1, 'amount' => 1, 'unit' => 'working_day']];
        $chase = ['lines' => [$later($note, 3, '09:00'), $later($note, 5, '09:00')]];
        yield 'letters that a long weekend brings together' => [$chase + $never, [], 'fall_together', '/lines/1/at'];
        yield 'letters that are kept apart' => [
            $chase + ['never' => $never['never'] + $apart] + $never, [], null, '',
        ];
        yield 'letters far from each other' => [
            ['lines' => [$later($note, 3, '09:00'), $later($note, 9, '09:00')]] + $never, [], null, '',
        ];
        $step = ['who' => ['kind' => 'people', 'people' => [['kind' => 'owner']]]];
        $timed = $step + ['within' => ['amount' => 2, 'unit' => 'day']];
        yield 'a sign-off that waits for good' => [
            ['when' => $changed('status'), 'lines' => [['kind' => 'sign_off', 'steps' => [$timed, $step]]]], [], 'waits_on',
            '/lines/0/steps/1',
        ];
        yield 'a sign-off whose time runs out' => [
            ['when' => $changed('status'), 'lines' => [['kind' => 'sign_off', 'steps' => [$timed, $timed]]]], [], null, '',
        ];
        yield 'one reminder is no chase' => [['fires' => ['kind' => 'becomes_true'], 'lines' => [$later($note, 2)]], [], null, ''];
        yield 'it ends as it begins' => [
            [
                'onlyIf' => $all($is('status', 'open')), 'fires' => ['kind' => 'becomes_true'], 'lines' => [$later($note, 2)],
                'until' => ['kind' => 'is_filled', 'field' => 'status'],
            ],
            [], 'ends_at_once', '/until',
        ];
        yield 'a line behind the end' => [
            [
                'onlyIf' => $all($is('status', 'open')), 'fires' => ['kind' => 'becomes_true'],
                'lines' => [$later(World::set('status', 'closed'), 2), $later($note, 4)],
                'until' => ['kind' => 'is_not', 'field' => 'status', 'value' => 'open'],
            ],
            [], 'after_the_end', '/lines/1',
        ];
        $closes = static fn (int $days): array => $later(World::set('status', 'closed'), $days);
        yield 'a line behind the closing of the record' => [
            [
                'fires' => ['kind' => 'becomes_true'], 'when' => $changed('code'), 'onlyIf' => $all($is('priority', 'high')),
                'lines' => [$closes(2), $later($note, 4)],
            ],
            [], 'after_closing', '/lines/1',
        ];
        yield 'a line before it' => [
            [
                'fires' => ['kind' => 'becomes_true'], 'when' => $changed('code'), 'onlyIf' => $all($is('priority', 'high')),
                'lines' => [$later($note, 2), $closes(4)],
            ],
            [], null, '',
        ];
        yield 'a line with it' => [
            [
                'fires' => ['kind' => 'becomes_true'], 'when' => $changed('code'), 'onlyIf' => $all($is('priority', 'high')),
                'lines' => [$closes(2), $later($note, 2)],
            ],
            [], null, '',
        ];
        $signOff = static fn (array $step, array $line = []): array => ['when' => $changed('status'), 'lines' => [
            $line + ['kind' => 'sign_off', 'steps' => [$step + ['who' => ['kind' => 'people', 'people' => [['kind' => 'owner']]]]]],
        ]];
        $week = ['within' => ['amount' => 1, 'unit' => 'week']];
        yield 'a lock that one silent person keeps' => [
            $signOff([], ['hold' => 'locked']), [], 'locked_for_good', '/lines/0/steps/0',
        ];
        yield 'a lock that time ends' => [$signOff($week, ['hold' => 'locked']), [], null, ''];
        yield 'a step that waits for what never holds' => [
            $signOff($week + ['until' => $all($is('status', 'open'), $is('status', 'closed'))]), [], 'never_agreed',
            '/lines/0/steps/0/until',
        ];
        yield 'more than it asks' => [$signOff($week + ['needed' => 3]), [], 'too_many_needed', '/lines/0/steps/0/needed'];
        yield 'a date that moves' => [
            ['when' => ['kind' => 'date', 'field' => 'due', 'amount' => -3, 'unit' => 'day'], 'fires' => ['kind' => 'once_per_record']], [],
            'date_moves', '/fires',
        ];
        yield 'an escalation to the assignee' => [
            [
                'when' => $changed('status'),
                'lines' => [
                    ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null], $ladder(['kind' => 'owner']),
                ],
            ],
            [], 'same_person', '/lines/1',
        ];
        yield 'an escalation to their manager' => [
            [
                'when' => $changed('status'),
                'lines' => [
                    ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null],
                    $ladder(['kind' => 'manager', 'of' => ['kind' => 'owner']]),
                ],
            ],
            [], null, '',
        ];
        yield 'always in quiet hours' => [
            [
                'when' => $changed('status'), 'lines' => [$later($note, 2, '07:00')],
                'never' => ['outside' => ['from' => '08:00', 'to' => '18:00']],
            ],
            [], 'quiet_hours', '/lines/0/at',
        ];
    }

    /**
     * @param  array<mixed>  $file
     * @param  list<array<mixed>>  $others
     */
    #[DataProvider('rules')]
    public function test_a_remark_stands_at_its_word(array $file, array $others, ?string $code, string $at): void
    {
        if (($file['onlyIf']['of'][1]['values'] ?? null) === []) {
            // Written out here, because the choices are those of the world.
            $file['onlyIf'] = [
                'kind' => 'any', 'of' => [['kind' => 'ticked', 'field' => 'paid'], ['kind' => 'not_ticked', 'field' => 'paid']],
            ];
        }
        $remarks = $this->remarks($file, $others);
        self::assertSame(
            $code === null ? [] : ["{$code} {$at}"],
            array_map(static fn (Remark $remark): string => "{$remark->code} {$remark->at}", $remarks),
        );
        foreach ($remarks as $remark) {
            self::assertNotSame('', $remark->advice);
            if ($remark->fix !== null) {
                $mended = self::put($file + World::file(), $remark->fix->at, $remark->fix->value);
                self::assertNotContains(
                    $code,
                    array_map(static fn (Remark $remark): string => $remark->code, $this->remarks($mended, $others)),
                    'followed, it goes',
                );
            }
        }
    }

    public function test_a_range_that_nobody_takes_is_said(): void
    {
        $share = static fn (array ...$of): array => ['eitherOr' => 'Discounts', 'onlyIf' => ['kind' => 'all', 'of' => $of]];
        $low = $share(['kind' => 'over', 'field' => 'share', 'value' => '10'], ['kind' => 'under', 'field' => 'share', 'value' => '30']);
        $high = $share(['kind' => 'over', 'field' => 'share', 'value' => '40']);
        $said = $this->remarks($high, [['name' => 'Low'] + $low])[0]->message;
        self::assertSame('No rule of “Discounts” takes Share 30.0, although the ranges lie on both sides of it.', $said);
    }

    public function test_a_circle_is_said_step_by_step(): void
    {
        $chain = [];
        foreach (['status' => 'priority', 'priority' => 'code', 'code' => 'status'] as $watched => $set) {
            $chain[] = [
                'name' => "Rule {$watched}", 'when' => ['kind' => 'changed', 'fields' => [$watched]],
                'lines' => [World::set($set, $set === 'code' ? 'A1' : ($set === 'status' ? 'open' : 'high'))],
            ];
        }
        $own = array_shift($chain);
        self::assertSame(
            'It sets Priority, which sets off ‘Rule priority’, which sets Code, which sets off ‘Rule code’, which sets Status, which sets '
                .'this rule off again.',
            $this->remarks($own, $chain)[0]->message,
        );
    }

    public function test_records_on_which_nobody_is_found_are_counted(): void
    {
        $census = new class implements Census
        {
            public function withNobody(Rule $rule, Who $person): array
            {
                return $person->wording() === 'the owner' ? [3, 40] : [0, 40];
            }
        };
        $file = [
            'lines' => [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'One', 'due' => null],
                ['kind' => 'give_task', 'to' => ['kind' => 'creator'], 'title' => 'Two', 'due' => null],
            ],
        ];
        $remarks = $this->remarks($file, [], $census);
        self::assertSame(
            ['finds_nobody /lines/0/to'],
            array_map(static fn (Remark $remark): string => "{$remark->code} {$remark->at}", $remarks),
        );
        self::assertSame('The owner is nobody on 3 of the 40 tickets that meet the conditions now.', $remarks[0]->message);
    }

    /**
     * @param  array<mixed>  $file
     * @param  list<array<mixed>>  $others
     * @return list<Remark>
     */
    private function remarks(array $file, array $others, ?Census $census = null): array
    {
        $world = new World;
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        $read = static function (array $file, int $id) use ($reader): Rule {
            $page = $reader->read($file + World::file(), $id, 1, $file['eitherOr'] ?? '');

            return $page->rule ?? throw new \LogicException((string) json_encode($page->problems));
        };
        $rules = [];
        foreach ($others as $index => $other) {
            $rules[] = $read($other, $index + 2);
        }

        return Proofreader::read(new RuleAmongOthers($read($file, 1), new Node($file + World::file()), World::schema(), $rules, $census));
    }

    /**
     * @param  array<mixed>  $file
     * @return array<mixed>
     */
    public static function put(array $file, string $at, mixed $value): array
    {
        $keys = explode('/', substr($at, 1));
        $last = array_pop($keys);
        $place = &$file;
        foreach ($keys as $key) {
            $place = &$place[$key];
        }
        if ($value === null) {
            unset($place[$last]);
            $place = array_is_list($place) || ! ctype_digit((string) array_key_first($place)) ? $place : array_values($place);
        } else {
            $place[$last] = $value;
        }

        return $file;
    }
}
