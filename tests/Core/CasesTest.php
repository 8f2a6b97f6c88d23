<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\World;
use VividLedger\Proofread\Proofreader;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Rehearse\PaperEntry;
use VividLedger\Rehearse\Rehearsal;
use VividLedger\Rehearse\Script;
use VividLedger\Rehearse\WhatIf\FieldsChange;
use VividLedger\Rehearse\WhatIf\WhatIf;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Rule\Trigger\Opening;
use VividLedger\Rule\Trigger\OpeningKind;
use VividLedger\Shape\Node;
use VividLedger\Shape\Problem;
use VividLedger\Text\RuleText;

/** Lines in cases: the first that holds when their time comes is the one. */
final class CasesTest extends TestCase
{
    private const START = '2026-11-24T08:40:00Z';

    /** @return iterable<string, array{array<mixed>, list<WhatIf>, list<string>}> lines, what happens, and the comments that come of it */
    public static function lived(): iterable
    {
        $at = static fn (int $days): \DateTimeImmutable => (new \DateTimeImmutable(self::START))->modify("+{$days} days");
        $cases = [
            self::heading('if', 'urgent'), self::note('U'), self::heading('or_if', 'high'), self::note('H'), self::note('H2', 2),
            ['kind' => 'otherwise'], self::note('O'), ['kind' => 'in_all_cases'], self::note('A'),
        ];
        $later = static fn (array $lines): array => [$lines[0] + self::after(3), ...array_slice($lines, 1)];
        yield 'the first that holds' => [$cases, [], ['24 H', '24 A', '26 H2']];
        yield 'as things stand when their time comes' => [
            $later($cases), [new FieldsChange($at(1), ['priority' => 'urgent'])], ['24 A', '27 U'],
        ];
        yield 'times in a case count from when it is known' => [$later($cases), [], ['24 A', '27 H', '29 H2']];
        yield 'once known it stays, whatever changes' => [
            $cases, [new FieldsChange($at(1), ['priority' => 'urgent'])], ['24 H', '24 A', '26 H2'],
        ];
        yield 'none holds' => [$later($cases), [new FieldsChange($at(2), ['priority' => null])], ['24 A', '27 O']];
        $inner = ['inner' => true];
        yield 'a case in a case' => [
            [
                self::heading('if', 'high'), self::note('before'), self::heading('if', 'low') + $inner, self::note('never'),
                ['kind' => 'otherwise'] + $inner, self::note('inner'), ['kind' => 'in_all_cases'] + $inner, self::note('behind'),
                ['kind' => 'otherwise'], self::note('no'),
            ],
            [], ['24 before', '24 inner', '24 behind'],
        ];
        yield 'a case that is switched off' => [
            [self::heading('if', 'high') + ['off' => true], self::note('off'), ['kind' => 'in_all_cases'], self::note('on')], [], ['24 on'],
        ];
        yield 'a line of a case waits for another of the same' => [
            [
                self::heading('if', 'high') + self::after(1),
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring', 'key' => 'ring',
                    'due' => ['amount' => 1, 'unit' => 'day']],
                self::note('late') + ['at' => ['kind' => 'late', 'line' => 'ring', 'amount' => 2, 'unit' => 'day']],
            ],
            [], ['28 late'],
        ];
        $closed = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'closed']]];
        $once = static fn (int $days): array => ['at' => ['kind' => 'once_true', 'that' => $closed] + ($days === 0 ? []
            : ['within' => ['amount' => $days, 'unit' => 'day']])];
        $close = new FieldsChange($at(2), ['status' => 'closed']);
        yield 'a line comes once something is so' => [[self::note('once') + $once(0)], [$close], ['26 once']];
        yield 'within its time' => [[self::note('once') + $once(3)], [$close], ['26 once']];
        yield 'not after its time' => [[self::note('once') + $once(1), self::note('then', 2)], [], ['26 then']];
        yield 'once it was so it comes, whatever follows' => [
            [self::note('once') + $once(0)],
            [$close, new FieldsChange($at(3), ['status' => 'open'])], ['26 once'],
        ];
        yield 'cases that are decided once something is so, and times that count from there' => [
            [self::heading('if', 'high') + $once(0), self::note('H', 2), ['kind' => 'otherwise'], self::note('O')], [$close], ['28 H'],
        ];
        yield 'a line of a case waits for one before the cases' => [
            [
                ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring', 'key' => 'ring',
                    'due' => ['amount' => 4, 'unit' => 'day']],
                self::heading('if', 'high') + self::after(1),
                self::note('late') + ['at' => ['kind' => 'late', 'line' => 'ring', 'amount' => 1, 'unit' => 'day']],
            ],
            [], ['29 late'],
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $lines
     * @param  list<WhatIf>  $whatIfs
     * @param  list<string>  $expected
     */
    #[DataProvider('lived')]
    public function test_the_first_that_holds_is_the_one(array $lines, array $whatIfs, array $expected): void
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket(['priority' => 'high']);
        $rule = $world->rule(self::file($lines), 1);
        $script = new Script(
            World::ticket(['priority' => 'high']),
            new Opening(OpeningKind::Changed, new \DateTimeImmutable(self::START), [], ['status' => 'waiting']), $whatIfs, 3,
        );
        $played = (new Rehearsal(World::schema(), $world->zone()))->play($script, $rule, [$rule], $world);
        $found = [];
        foreach ($played->entries as $entry) {
            foreach (self::comments($entry) as $text) {
                $found[] = $entry->at->setTimezone(new \DateTimeZone('UTC'))->format('d')." {$text}";
            }
        }
        self::assertSame($expected, $found);
        self::assertSame([], $played->left);
    }

    /** @return iterable<string, array{array<mixed>, list<string>}> what no line may break, and the moments of what comes of a wait */
    public static function held(): iterable
    {
        yield 'nothing' => [[], ['fired 24 08:40', 'retimed 26 08:40', 'line 26 08:40']];
        yield 'quiet hours: meant for the change' => [
            ['never' => ['outside' => ['from' => '10:00', 'to' => '11:00']]],
            ['fired 24 08:40', 'line 24 09:00', 'retimed 26 08:40', 'line 26 09:00'],
        ];
        yield 'a cap: waits once more, and comes though it is so no longer' => [
            ['never' => ['moreThan' => ['messages' => 1, 'amount' => 4, 'unit' => 'day', 'then' => 'wait']]],
            ['fired 24 08:40', 'retimed 26 08:40', 'line 26 08:40', 'line 28 08:40'],
        ];
    }

    /**
     * A line that waits is moved once, however many changes follow in the same save, and what was true for it stays so.
     *
     * @param  array<mixed>  $never
     * @param  list<string>  $expected
     */
    #[DataProvider('held')]
    public function test_what_was_true_once_stays_so_for_the_line(array $never, array $expected): void
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket(['priority' => 'high']);
        $closed = ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'closed']]];
        $owner = ['kind' => 'person', 'person' => ['kind' => 'owner']];
        $rule = $world->rule($never + self::file([
            ['kind' => 'send_message', 'channel' => 'app', 'to' => [$owner], 'subject' => 'First', 'body' => '<p>First</p>'],
            ['kind' => 'send_message', 'channel' => 'app', 'to' => [$owner], 'subject' => 'Once', 'body' => '<p>Once</p>',
                'at' => ['kind' => 'once_true', 'that' => $closed]],
        ]), 1);
        $echo = $world->rule(['name' => 'Echo', 'fires' => ['kind' => 'every_time'], 'onlyIf' => $closed,
            'lines' => [World::set('code', 'DONE')]] + self::file([]), 2);
        $script = new Script(
            World::ticket(['priority' => 'high']),
            new Opening(OpeningKind::Changed, new \DateTimeImmutable(self::START), [], ['status' => 'waiting']),
            [
                new FieldsChange((new \DateTimeImmutable(self::START))->modify('+2 days'), ['status' => 'closed']),
                new FieldsChange((new \DateTimeImmutable(self::START))->modify('+3 days'), ['status' => 'open']),
            ],
            3,
        );
        $played = (new Rehearsal(World::schema(), $world->zone()))->play($script, $rule, [$rule, $echo], $world);
        $found = [];
        foreach ($played->entries as $entry) {
            if (in_array($entry->told->kind, ['fired', 'retimed', 'line'], true) && $entry->told->rule?->id === 1) {
                $found[] = "{$entry->told->kind} ".$entry->at->setTimezone(new \DateTimeZone('UTC'))->format('d H:i');
            }
        }
        self::assertSame($expected, $found);
    }

    /** @return iterable<string, array{list<array<string, mixed>>, ?string, ?string}> lines, the place of the problem, and its code */
    public static function written(): iterable
    {
        yield 'in order' => [[self::heading('if', 'high'), self::note('A'), ['kind' => 'otherwise'], self::note('B')], null, null];
        yield 'nothing to do in a case' => [[self::heading('if', 'high'), ['kind' => 'otherwise'], self::note('B')], null, null];
        yield 'no case before it' => [[self::note('A'), ['kind' => 'otherwise'], self::note('B')], '/lines/1', 'no_case'];
        yield 'nothing comes after otherwise' => [
            [self::heading('if', 'high'), self::note('A'), ['kind' => 'otherwise'], self::note('B'), self::heading('or_if', 'low')],
            '/lines/4', 'no_case',
        ];
        yield 'within nothing' => [[self::heading('if', 'high') + ['inner' => true], self::note('A')], '/lines/0', 'no_case'];
        yield 'only headings' => [[self::heading('if', 'high')], '/lines', 'missing'];
        yield 'all in it is switched off' => [[self::heading('if', 'high') + ['off' => true], self::note('A')], '/lines', 'all_off'];
        yield 'cases do not repeat' => [
            [
                self::heading('if', 'high') + ['at' => ['kind' => 'every', 'amount' => 1, 'unit' => 'day', 'times' => 3]], self::note('A'),
            ],
            '/lines/0/at', 'wrong_type',
        ];
        yield 'a save is refused at once, or never' => [
            [self::heading('if', 'high') + self::after(1), ['kind' => 'refuse', 'message' => 'No']], '/lines/1', 'wrong_type',
        ];
        $once = static fn (array $that): array => ['at' => ['kind' => 'once_true', 'that' => $that]];
        yield 'waits for the record itself' => [
            [self::note('A') + $once(['kind' => 'is', 'field' => 'status', 'value' => 'open'])], null, null,
        ];
        yield 'waits for nothing yet' => [[self::note('A') + $once(['kind' => 'all', 'of' => []])], '/lines/0/at/that', 'empty_group'];
        $task = ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Ring', 'key' => 'ring'];
        $done = ['at' => ['kind' => 'done', 'line' => 'ring', 'amount' => 0, 'unit' => 'day']];
        yield 'nor on a condition of its own' => [
            [
                self::heading('if', 'high') + self::after(1),
                ['kind' => 'refuse', 'message' => 'No', 'onlyIf' => ['kind' => 'is', 'field' => 'status', 'value' => 'open']],
            ],
            '/lines/1', 'wrong_type',
        ];
        yield 'waits for the other case' => [
            [self::heading('if', 'high'), $task, ['kind' => 'otherwise'], self::note('B') + $done], '/lines/3/at', 'other_case',
        ];
        yield 'waits in its own case' => [[self::heading('if', 'high'), $task, self::note('B') + $done], null, null];
    }

    /** @param  list<array<string, mixed>>  $lines */
    #[DataProvider('written')]
    public function test_what_does_not_fit_together_is_a_problem_at_its_place(array $lines, ?string $at, ?string $code): void
    {
        $world = new World;
        $page = (new RuleReader(World::schema(), $world, $world->zone()))->strictly(self::file($lines));
        self::assertSame($at === null ? [] : [[$at, $code]], array_map(
            static fn (Problem $problem): array => [$problem->at, $problem->code], $page->problems,
        ));
        self::assertSame($at === null, $page->rule !== null);
    }

    public function test_what_people_type_comes_out_as_cases(): void
    {
        $world = new World;
        $text = new RuleText(World::schema(), $world, $world->zone());
        $typed = <<<'E'
            When a ticket is changed
            3 days later: if priority is high:
                comment “H”
                within that case, if status is open:
                    comment “O”
            else if priority is low: comment “L”
            in all other cases comment “B”
            either way
            after 2 days comment “A”
            E;
        $read = $text->parse($typed);
        self::assertSame([], $read->misread);
        self::assertSame(
            ['if', 'comment', 'if', 'comment', 'or_if', 'comment', 'otherwise', 'comment', 'in_all_cases', 'comment'],
            array_column($read->file['lines'] ?? [], 'kind'),
        );
        self::assertEquals(self::after(3)['at'], $read->file['lines'][0]['at'] ?? null);
        $printed = $text->print($read->file + ['name' => 'Cases']);
        self::assertStringContainsString(
            "\n    Within it, if Status is Open:\n        Comment “O”\nOtherwise, if Priority is Low:\n",
            $printed,
        );
        self::assertTrue(RuleText::same($text->parse($printed)->file['lines'] ?? [], $read->file['lines']));
    }

    /** @return iterable<array{string, list<string>}> */
    public static function sentences(): iterable
    {
        yield [
            'When a ticket is changed, if its priority is high, comment “H”, otherwise comment “O”',
            ['if', 'comment', 'otherwise', 'comment'],
        ];
        yield [
            'When a ticket is changed, comment “H” if priority is high, else if priority is low comment “L”, otherwise comment “O”',
            ['if', 'comment', 'or_if', 'comment', 'otherwise', 'comment'],
        ];
        yield [
            'When a ticket is created, comment “first”, comment “H” if priority is high, otherwise comment “O”',
            ['comment', 'if', 'comment', 'otherwise', 'comment'],
        ];
    }

    /** @param  list<string>  $kinds */
    #[DataProvider('sentences')]
    public function test_otherwise_makes_cases_of_what_was_said_before(string $sentence, array $kinds): void
    {
        $world = new World;
        $read = (new RuleText(World::schema(), $world, $world->zone()))->parseSentence($sentence);
        self::assertSame($kinds, array_column($read->file['lines'] ?? [], 'kind'), $sentence);
        self::assertSame([], ($read->file['onlyIf'] ?? ['of' => []])['of']);
    }

    public function test_a_case_that_never_comes_is_remarked(): void
    {
        $over = static fn (string $kind, string $share): array => [
            'kind' => $kind, 'that' => ['kind' => 'over', 'field' => 'share', 'value' => $share],
        ];
        self::assertSame(['/lines/2'], self::remarked([$over('if', '10'), self::note('A'), $over('or_if', '20'), self::note('B')]));
        self::assertSame([], self::remarked([$over('if', '20'), self::note('A'), $over('or_if', '10'), self::note('B')]));
        self::assertSame(['/lines/2'], self::remarked(
            [
                ['kind' => 'if', 'that' => ['kind' => 'not_one_of', 'field' => 'status', 'values' => ['closed']]],
                self::note('A'), ['kind' => 'otherwise'],
                self::note('B'),
            ],
        ), 'what starts the rule leaves nothing for the others');
    }

    /**
     * @param  list<array<string, mixed>>  $lines
     * @return list<string>
     */
    private static function remarked(array $lines): array
    {
        $world = new World;
        $file = self::file($lines);
        $among = new RuleAmongOthers($world->rule($file, 1), new Node($file), World::schema(), []);
        $places = [];
        foreach (Proofreader::read($among) as $remark) {
            if ($remark->code === 'never') {
                $places[] = $remark->at;
            }
        }

        return $places;
    }

    /** @return list<string> */
    private static function comments(PaperEntry $entry): array
    {
        $texts = [];
        foreach ($entry->told->data['did'] ?? [] as $outcome) {
            if (is_array($outcome) && ($outcome['kind'] ?? '') === 'comment') {
                $texts[] = (string) $outcome['text'];
            }
        }

        return $texts;
    }

    /** @return array<string, mixed> */
    private static function heading(string $kind, string $priority): array
    {
        return ['kind' => $kind, 'that' => ['kind' => 'is', 'field' => 'priority', 'value' => $priority]];
    }

    /** @return array<string, mixed> */
    private static function note(string $text, int $days = 0): array
    {
        return ['kind' => 'comment', 'text' => $text] + ($days === 0 ? [] : self::after($days));
    }

    /** @return array<string, mixed> */
    private static function after(int $days): array
    {
        return ['at' => ['kind' => 'after', 'amount' => $days, 'unit' => 'day']];
    }

    /**
     * @param  list<array<string, mixed>>  $lines
     * @return array<string, mixed>
     */
    private static function file(array $lines): array
    {
        return [
            'format' => RuleReader::FORMAT, 'name' => 'Cases', 'on' => 'ticket', 'when' => ['kind' => 'changed', 'fields' => ['status']],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'waiting']]],
            'fires' => ['kind' => 'becomes_true'], 'lines' => $lines,
        ];
    }
}
