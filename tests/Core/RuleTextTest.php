<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Stories;
use Tests\Core\Support\World;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Text\RuleText;

/** A rule as text: what is printed is read back as the same rule, and what a person types is understood or said not to be. */
final class RuleTextTest extends TestCase
{
    public function test_every_rule_comes_back_from_its_text(): void
    {
        $world = $this->world();
        $text = new RuleText(World::schema(), $world, $world->zone());
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        $raw = 0;
        $rows = 0;
        for ($seed = 1; $seed <= 300; $seed++) {
            $stories = new Stories($seed, World::schema(), ['tomas', 'ines'], ['customer' => [1, 2], 'ticket' => [7]]);
            $stories->teams = ['Sales', 'Board'];
            $file = $seed % 2 === 0 ? $stories->inTime($stories->rule("Rule {$seed}")) : $stories->rule("Rule “{$seed}”\\ it's");
            $printed = $text->print($file);
            $read = $text->parse($printed);
            self::assertSame([], $read->misread, "seed {$seed}: {$printed}");
            self::assertSame(
                json_encode(RuleText::plain($this->filled($file))),
                json_encode(RuleText::plain($this->filled($read->file ?? []))),
                "seed {$seed}: {$printed}",
            );
            self::assertSame($reader->read($file)->aloud(), $reader->read($read->file ?? [])->aloud(), "seed {$seed}: {$printed}");
            self::assertSame($printed, $text->print($read->file ?? []), 'and printed again it is the same text');
            $raw += substr_count($printed, '⟦');
            $rows += substr_count($printed, "\n");
        }
        self::assertLessThan($rows / 8, $raw, "nearly everything has words of its own: {$raw} of {$rows} rows do not");
    }

    public function test_the_sentence_that_a_rule_is_told_by_is_read_as_that_rule_or_not_at_all(): void
    {
        $world = new World;
        $text = new RuleText(World::schema(), $world, $world->zone());
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        [$understood, $all] = [0, 80];
        for ($seed = 1; $seed <= $all; $seed++) {
            $stories = new Stories($seed, World::schema(), ['tomas', 'ines'], ['customer' => [1, 2], 'ticket' => [7]]);
            $sentence = $reader->read($stories->rule('A rule'))->aloud();
            $read = $text->parseSentence($sentence);
            $files = $read->file === null ? $read->readings : [$read->file];
            // A single group is told in brackets, which say nothing.
            $bare = static fn (string $told): string => (string) preg_replace('/ only if \(([^()]*)\)(?=[,:])/', ' only if $1', $told);
            $again = array_map(static fn (array $file): string => $bare($reader->read($file)->aloud()), $files);
            self::assertTrue($files === [] || in_array($bare($sentence), $again, true), "{$seed}: {$sentence}\n".implode("\n", $again));
            $understood += $files === [] ? 0 : 1;
        }
        self::assertGreaterThan($all / 2, $understood);
    }

    /** @return iterable<string, array{string, array<mixed>}> a line as somebody types it, and what it means */
    public static function typed(): iterable
    {
        $manager = ['kind' => 'manager', 'of' => ['kind' => 'owner']];
        $after = static fn (int $amount, string $unit): array => ['at' => ['kind' => 'after', 'amount' => $amount, 'unit' => $unit]];
        $set = static fn (string $field, array $to): array => ['kind' => 'set_fields', 'set' => [['field' => $field, 'to' => $to]]];
        yield 'a reminder later' => [
            'after 2 working days remind the owner’s manager', ['kind' => 'remind', 'to' => $manager] + $after(2, 'working_day'),
        ];
        yield 'with plain quotes, short units and a colon' => [
            'After 2wd: remind owner\'s manager "Look at {number}"',
            ['kind' => 'remind', 'to' => $manager, 'text' => 'Look at {number}'] + $after(2, 'working_day'),
        ];
        yield 'the time behind' => [
            'remind the owner “Look” after 3 days at 9:00',
            [
                'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Look',
                'at' => ['kind' => 'after', 'amount' => 3, 'unit' => 'day', 'time' => '09:00'],
            ],
        ];
        yield 'a field to now' => ['set since to now', $set('since', ['kind' => 'now'])];
        yield 'a field to a choice' => ['Set Priority to urgent', $set('priority', ['kind' => 'value', 'value' => 'urgent'])];
        yield 'two fields' => [
            'set Priority to High and Code to “A1”',
            [
                'kind' => 'set_fields',
                'set' => [
                    ['field' => 'priority', 'to' => ['kind' => 'value', 'value' => 'high']],
                    ['field' => 'code', 'to' => ['kind' => 'value', 'value' => 'A1']],
                ],
            ],
        ];
        yield 'only if, behind' => [
            'set Paid to ticked, only if Priority is Urgent and Customer › Plan is not Basic',
            $set('paid', ['kind' => 'value', 'value' => true]) + [
                'onlyIf' => [
                    'kind' => 'all',
                    'of' => [
                        ['kind' => 'is', 'field' => 'priority', 'value' => 'urgent'],
                        ['kind' => 'is_not', 'field' => 'customer.plan', 'value' => 'basic'],
                    ],
                ],
            ],
        ];
        yield 'a path with a plain arrow' => [
            'comment “Hello” only if Customer > Key account is ticked',
            ['kind' => 'comment', 'text' => 'Hello', 'onlyIf' => ['kind' => 'ticked', 'field' => 'customer.key']],
        ];
        yield 'a task' => [
            'give the owner a high-priority task “Ring” due 1 working day later',
            [
                'kind' => 'give_task', 'priority' => 'high', 'to' => ['kind' => 'owner'], 'title' => 'Ring',
                'due' => ['amount' => 1, 'unit' => 'working_day'],
            ],
        ];
        yield 'a person by name' => [
            'assign the ticket to Tomas Weld', ['kind' => 'assign', 'to' => ['kind' => 'named', 'handle' => 'tomas']],
        ];
        yield 'before a date' => [
            '2 days before Due remind the owner',
            [
                'kind' => 'remind', 'to' => ['kind' => 'owner'],
                'at' => ['kind' => 'date', 'amount' => -2, 'unit' => 'day', 'field' => 'due'],
            ],
        ];
        yield 'every so often' => [
            'every 2 days, at most 5 times: remind the owner “Still?”',
            [
                'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Still?',
                'at' => ['kind' => 'every', 'amount' => 2, 'unit' => 'day', 'times' => 5],
            ],
        ];
        yield 'every so often, without a most' => [
            'every 2 working days remind the owner “Still?”',
            [
                'kind' => 'remind', 'to' => ['kind' => 'owner'], 'text' => 'Still?',
                'at' => ['kind' => 'every', 'amount' => 2, 'unit' => 'working_day'],
            ],
        ];
        yield 'a bullet' => ['- set Status to Closed', $set('status', ['kind' => 'value', 'value' => 'closed'])];
    }

    /** @param  array<mixed>  $line */
    #[DataProvider('typed')]
    public function test_what_is_typed_is_understood(string $typed, array $line): void
    {
        $read = $this->text()->parseLine($typed, World::schema()->types['ticket']);
        self::assertSame([], array_map(static fn ($misread): string => $misread->message(), $read->misread));
        self::assertSame(json_encode(RuleText::plain($line)), json_encode(RuleText::plain($read->file)));
    }

    /**
     * @return iterable<string, array{string, int, string, string}> what is typed, where it is not understood, the word, and something
     *     that could stand there
     */
    public static function wrong(): iterable
    {
        yield 'no such field' => ['set Prio to High', 4, 'Prio', 'Priority'];
        yield 'no such value' => ['set Priority to Hugh', 16, 'Hugh', 'High'];
        yield 'no such person' => ['remind the chief', 7, 'the chief', 'the owner'];
        yield 'an amount without a unit' => ['after 2 remind the owner', 8, 'remind', 'days'];
        yield 'something behind' => ['remind the owner “Look” loudly', 24, 'loudly', 'the end'];
        yield 'half a line' => ['give the owner', 14, '', 'a task'];
    }

    #[DataProvider('wrong')]
    public function test_what_is_not_understood_is_said_at_its_word(string $typed, int $position, string $word, string $could): void
    {
        $read = $this->text()->parseLine($typed, World::schema()->types['ticket']);
        self::assertNull($read->file);
        self::assertSame([$position, $word], [$read->misread[0]->position, $read->misread[0]->word], $read->misread[0]->message());
        if ($could !== 'the end') {
            self::assertNotSame(
                [],
                array_filter(
                    $read->misread[0]->expected,
                    static fn (string $one): bool => str_contains(trim($one), trim($could, ' ')) || str_contains($could, trim($one)),
                ),
                json_encode($read->misread[0]->expected).'',
            );
        }
    }

    public function test_only_what_can_be_typed_as_it_is_said_is_offered(): void
    {
        $offers = function (string $typed): array {
            $read = $this->text()->parseLine($typed, World::schema()->types['ticket']);
            self::assertNotSame([], $read->misread[0]->expected, 'What may stand there is said all the same.');

            return $read->misread[0]->offers;
        };
        self::assertContains('the owner', $offers('remind '));
        self::assertNotContains('an amount of time, such as 2 working days', $offers('after 2 remind the owner'));
        self::assertNotContains('the end of the line', $offers('remind the owner “Look” loudly'));
    }

    public function test_a_whole_page_is_typed(): void
    {
        $read = $this->text()->parse(<<<'TEXT'
            Rule "Chase"
            When a Ticket is created or changed
            Only if Status is Waiting and (Priority is Urgent or Priority is High)
            Fires when the conditions become true

            After 3 days at 09:00: remind the owner "{number} waits"
            After 5 days: give the owner a task "Ring"
            Until it gets a reply or Status is not Waiting
            Never outside 08:00–18:00 on working days or more than 2 messages in 1 week to one address
            TEXT);
        self::assertSame([], array_map(static fn ($misread): string => $misread->message(), $read->misread));
        $world = $this->world();
        $page = (new RuleReader(World::schema(), $world, $world->zone()))->read($read->file ?? []);
        self::assertSame([], $page->problems);
        self::assertSame(
            'When a Ticket is created or changed, only if Status is Waiting and (Priority is Urgent or Priority is High), firing when the '
                .'conditions become true: after 3 days remind the owner “{number} waits”, at 09:00; after 5 days give the owner a task '
                    .'“Ring” due at no set time, until it gets a reply or Status is not Waiting, never outside 08:00–18:00 on working '
                        .'days · or more than 2 messages in 1 week to one address; what is over waits.',
            $page->aloud(),
        );
        $wrong = $this->text()->parse("Rule \"X\"\nWhen a Ticket is created\nFires sometimes\nset Nothing to 1\n");
        self::assertSame(
            [[3, 'sometimes'], [4, 'Nothing']],
            array_map(static fn ($misread): array => [$misread->line, $misread->word], $wrong->misread),
        );
    }

    public function test_a_page_is_typed_as_people_talk(): void
    {
        $read = $this->text()->parse("one day after due at 9\nif it is urgent\nonce\nclose it\n", World::schema()->types['ticket']);
        self::assertSame([], $read->misread);
        self::assertSame(
            "Rule “”\nWhen a Ticket comes to 1 day after Due at 09:00\nOnly if Priority is Urgent\nFires once per ticket\n"
                ."Set Status to Closed\n",
            $this->text()->print($read->file ?? []),
        );
        $unclear = $this->text()->parse("when a ticket is closed\npriority = urgent\n")->misread;
        self::assertSame(
            [[2, 'That can mean several things: “Only if Priority is Urgent”, or “Set Priority to Urgent”. Write the one you mean.']],
            array_map(static fn ($one): array => [$one->line, $one->message()], $unclear),
        );
    }

    public function test_nothing_that_is_typed_breaks_it(): void
    {
        $text = $this->text();
        $random = new \Random\Randomizer(new \Random\Engine\Mt19937(11));
        $pieces = [
            'set', 'Priority', 'to', 'High', 'after', '2', 'days', 'working', 'remind', 'the owner', '’s manager', '“', '”', '"', '(', ')',
            'only if', 'and', 'or', '›', 'Customer', 'é', '⟦', '⟧', '{"kind":"x"}', '\\', ',', ':', '%', '-', 'Give', 'a task', 'due',
            'all of', ';', "\u{2018}", '\'', '😀', 'When a Ticket', 'is created', 'Fires', 'every time',
        ];
        $understood = 0;
        for ($count = 0; $count < 1500; $count++) {
            // Now and then there is something right in it.
            $typed = $random->getInt(0, 3) === 0 ? array_values(array_map(
                static fn (array $one): string => $one[0],
                iterator_to_array(self::typed()),
            ))[$random->getInt(0, 12)].' ' : '';
            for ($words = $random->getInt(0, $typed === '' ? 9 : 1); $words > 0; $words--) {
                $typed .= $pieces[$random->getInt(0, count($pieces) - 1)].($random->getInt(0, 4) === 0 ? '' : ' ');
            }
            $read = $random->getInt(0, 2) === 0 ? $text->parse($typed) : $text->parseLine($typed, World::schema()->types['ticket']);
            self::assertSame($read->file === null, $read->misread !== [], $typed);
            foreach ($read->misread as $misread) {
                self::assertLessThanOrEqual(mb_strlen($typed) + 20, $misread->position, $typed);
                self::assertNotSame('', $misread->message());
            }
            $understood += $read->file === null ? 0 : 1;
        }
        self::assertGreaterThan(0, $understood);
    }

    private function text(): RuleText
    {
        $world = $this->world();

        return new RuleText(World::schema(), $world, $world->zone());
    }

    private function world(): World
    {
        $world = new World;
        $world->records['ticket:7'] = World::ticket();

        return $world;
    }

    /**
     * A file that says nothing of its conditions means the same as one with an empty group.
     *
     * @param  array<mixed>  $file
     * @return array<mixed>
     */
    private function filled(array $file): array
    {
        if (($file['onlyIf']['of'] ?? null) === [] || ! isset($file['onlyIf'])) {
            unset($file['onlyIf']);
        }

        return $file;
    }
}
