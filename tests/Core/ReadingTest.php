<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Stories;
use Tests\Core\Support\World;
use VividLedger\Rule\Reading\RuleReader;

/** A rule file as a sentence, and what is wrong with it, at the word. */
final class ReadingTest extends TestCase
{
    public function test_a_rule_reads_aloud(): void
    {
        $page = (new World)->read([
            'onlyIf' => ['kind' => 'all', 'of' => [
                ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'], [
                    'kind' => 'is_not', 'field' => 'customer.plan', 'value' => 'basic',
                ],
                [
                    'kind' => 'any',
                    'of' => [
                        ['kind' => 'over', 'field' => 'cost', 'value' => '1240'], ['kind' => 'is', 'field' => 'owner', 'value' => 'ines'],
                        ['kind' => 'one_of', 'field' => 'status', 'values' => ['open', 'waiting']],
                    ],
                ],
                [
                    'kind' => 'none',
                    'of' => [['kind' => 'ticked', 'field' => 'paid'], ['kind' => 'under', 'field' => 'due', 'value' => '2026-12-01']],
                ],
            ]],
            'fires' => ['kind' => 'once_per_record'],
            'lines' => [
                World::set('since', ['kind' => 'now']),
                [
                    'kind' => 'give_task', 'to' => ['kind' => 'manager', 'of' => ['kind' => 'owner']], 'title' => 'Ring',
                    'due' => ['amount' => 1, 'unit' => 'day'],
                ],
            ],
        ]);

        self::assertSame([], $page->problems);
        self::assertSame(
            'When a Ticket is created or changed, only if Priority is Urgent and Customer › Plan is not Basic and (Cost is over € '
                .'1,240.00 or Owner is Ines Okafor or Status is one of Open or Waiting)'
            .' and (none of Paid is ticked, Due is before 1 Dec 2026), firing once per ticket: set Since to now; give the owner’s manager '
                .'a task “Ring” due 1 day later.',
            $page->aloud(),
        );
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> what is wrong, where, with which code */
    public static function wrongs(): iterable
    {
        $if = static fn (array $condition): array => ['onlyIf' => ['kind' => 'all', 'of' => [$condition]]];
        $task = static fn (array $with): array => [
            'lines' => [$with + ['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Look', 'due' => null]],
        ];

        yield 'no name' => [['name' => ' '], '/name', 'missing'];
        yield 'too long a name' => [['name' => str_repeat('x', 81)], '/name', 'too_long'];
        yield 'no record type' => [['on' => 'boat'], '/on', 'unknown_type'];
        yield 'no trigger' => [['when' => ['kind' => 'someday']], '/when', 'unknown_trigger'];
        yield 'a watched field that is not there' => [
            ['when' => ['kind' => 'changed', 'fields' => ['status', 'nope']]], '/when/fields', 'unknown_field',
        ];
        yield 'no guard' => [['fires' => []], '/fires', 'unknown_guard'];
        yield 'no lines' => [['lines' => []], '/lines', 'missing'];
        yield 'a line of no kind' => [['lines' => [['kind' => 'sing']]], '/lines/0', 'unknown_line'];
        yield 'too many lines' => [['lines' => array_fill(0, 51, World::set('paid', true))], '/lines', 'too_many'];
        yield 'no field' => [$if([]), '/onlyIf/of/0/field', 'missing'];
        yield 'a field that is not there' => [
            $if(['kind' => 'is', 'field' => 'nope', 'value' => 'x']), '/onlyIf/of/0/field', 'unknown_field',
        ];
        yield 'a path through a field that refers to nothing' => [
            $if(['kind' => 'is', 'field' => 'status.plan', 'value' => 'x']), '/onlyIf/of/0/field', 'unknown_field',
        ];
        yield 'an operator that does not fit' => [
            $if(['kind' => 'over', 'field' => 'status', 'value' => 'open']), '/onlyIf/of/0/kind', 'wrong_type',
        ];
        yield 'no such operator' => [
            $if(['kind' => 'resembles', 'field' => 'status', 'value' => 'open']), '/onlyIf/of/0/kind', 'unknown_operator',
        ];
        yield 'no value' => [$if(['kind' => 'is', 'field' => 'status']), '/onlyIf/of/0/value', 'missing'];
        yield 'an empty value' => [$if(['kind' => 'is', 'field' => 'code', 'value' => '']), '/onlyIf/of/0/value', 'missing'];
        yield 'a value that is not offered' => [
            $if(['kind' => 'is', 'field' => 'status', 'value' => 'gone']), '/onlyIf/of/0/value', 'not_offered',
        ];
        yield 'one value of a list that is not offered' => [
            $if(['kind' => 'one_of', 'field' => 'status', 'values' => ['open', 'gone']]), '/onlyIf/of/0/values', 'not_offered',
        ];
        yield 'an empty list' => [$if(['kind' => 'one_of', 'field' => 'status', 'values' => []]), '/onlyIf/of/0/values', 'missing'];
        yield 'a number that is none' => [
            $if(['kind' => 'over', 'field' => 'cost', 'value' => 'lots']), '/onlyIf/of/0/value', 'wrong_type',
        ];
        yield 'a date that does not exist' => [
            $if(['kind' => 'over', 'field' => 'due', 'value' => '2026-02-30']), '/onlyIf/of/0/value', 'wrong_type',
        ];
        yield 'a person who is not there' => [
            $if(['kind' => 'is', 'field' => 'owner', 'value' => 'nobody']), '/onlyIf/of/0/value', 'unknown_value',
        ];
        yield 'a record that is not there' => [
            $if(['kind' => 'is', 'field' => 'customer', 'value' => 'C-0099']), '/onlyIf/of/0/value', 'unknown_value',
        ];
        yield 'a group inside without conditions' => [$if(['kind' => 'any', 'of' => []]), '/onlyIf/of/0', 'empty_group'];
        yield 'a field kept by the application' => [
            ['lines' => [World::set('created_at', ['kind' => 'now'])]], '/lines/0/set/0/field', 'not_settable',
        ];
        yield 'now for a choice' => [['lines' => [World::set('status', ['kind' => 'now'])]], '/lines/0/set/0/to', 'wrong_type'];
        yield 'clearing what has to be filled in' => [['lines' => [World::set('subject', null)]], '/lines/0/set/0/to', 'wrong_type'];
        yield 'copying what does not fit' => [
            ['lines' => [World::set('owner', ['kind' => 'copy', 'from' => 'status'])]], '/lines/0/set/0/to/from', 'wrong_type',
        ];
        yield 'setting too long a text' => [['lines' => [World::set('code', 'toolong')]], '/lines/0/set/0/to', 'too_long'];
        yield 'nothing to set' => [['lines' => [['kind' => 'set_fields', 'set' => []]]], '/lines/0/set/0/field', 'missing'];
        yield 'a task for nobody' => [$task(['to' => []]), '/lines/0/to', 'missing'];
        yield 'a task for a stranger' => [$task(['to' => ['kind' => 'named', 'handle' => 'who']]), '/lines/0/to', 'unknown_person'];
        yield 'a task without a title' => [$task(['title' => '  ']), '/lines/0/title', 'missing'];
        yield 'a task with too long a title' => [$task(['title' => str_repeat('x', 201)]), '/lines/0/title', 'too_long'];
        yield 'a title that merges what is not there' => [$task(['title' => 'Ring {contact.name}']), '/lines/0/title', 'unknown_field'];
        yield 'a due date that is no amount' => [$task(['due' => ['amount' => 'two', 'unit' => 'day']]), '/lines/0/due', 'wrong_type'];
        yield 'a due date before now' => [$task(['due' => ['amount' => -1, 'unit' => 'day']]), '/lines/0/due', 'wrong_type'];
        yield 'a due date that overflows' => [$task(['due' => ['amount' => 99999, 'unit' => 'year']]), '/lines/0/due', 'out_of_range'];
    }

    /** @param  array<string, mixed>  $file */
    #[DataProvider('wrongs')]
    public function test_what_is_wrong_is_said_at_its_word(array $file, string $at, string $code): void
    {
        $page = (new World)->read($file);

        self::assertNull($page->rule);
        self::assertContains([$at, $code], array_map(static fn ($problem): array => [$problem->at, $problem->code], $page->problems));
    }

    /** Whatever is torn out of a file, it still reads: as a page with gaps, never as an error. */
    public function test_a_half_written_rule_still_reads(): void
    {
        $world = new World;
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        $world->records['ticket:8'] = World::made('ticket', 8, ['subject' => 'Another']);
        for ($seed = 1; $seed <= 600; $seed++) {
            $stories = new Stories($seed, World::schema(), ['edda'], ['customer' => [1], 'ticket' => [8]]);
            $file = $stories->rule('A rule');
            self::assertNotNull($reader->read($file)->rule, "seed {$seed} is sound");
            $torn = $this->torn($file, $stories);
            $page = $reader->read(is_array($torn) ? $torn : []);
            self::assertTrue(($page->rule === null) === ($page->problems !== []), "seed {$seed}");
            self::assertNotSame('', $page->aloud());
        }
    }

    /** Takes out, or spoils, one random place. */
    private function torn(mixed $node, Stories $stories): mixed
    {
        if (! is_array($node) || $node === [] || $stories->random->getInt(1, 5) === 1) {
            return $stories->one([null, [], 'nonsense', 7, true, ['kind' => 'nonsense'], [null]]);
        }
        $key = $stories->one(array_keys($node));
        $node[$key] = $this->torn($node[$key], $stories);

        return $node;
    }
}
