<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Core\Support\World;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Text\Nearest;
use VividLedger\Text\Parts;
use VividLedger\Text\RuleText;

/** What people type, in their own words: read as what it is printed as, or asked about, and never as anything else. */
final class PhrasesTest extends TestCase
{
    public function test_what_people_say_is_read_as_it_is_printed(): void
    {
        $count = 0;
        foreach (self::phrases() as ['part' => $part, 'on' => $on, 'printed' => $printed, 'said' => $said]) {
            $type = self::type($on);
            $meant = $this->text()->parsePart($printed, $part, $type)->file;
            self::assertNotNull($meant, $printed);
            self::assertSame($printed, $this->text()->printPart($meant, $part, $type));
            foreach ($said as $phrase) {
                $read = $this->text()->parsePart($phrase, $part, $type);
                self::assertTrue($read->file !== null && RuleText::same($read->file, $meant), "{$phrase}: ".json_encode([
                    $read->file, $read->readings, $read->misread,
                ]).", not {$printed}");
                self::assertStringNotContainsString('…"', (string) json_encode($read->file, JSON_UNESCAPED_UNICODE), $phrase);
                $count++;
            }
        }
        self::assertGreaterThan(550, $count);
    }

    /** @return iterable<string, array{string, string}> part and phrase: what cannot be meant as it would be read */
    public static function unclear(): iterable
    {
        yield 'two lines at once' => ['line', 'close the ticket and remind the owner “Look”'];
        yield 'one value or another' => ['line', 'set status to closed or waiting'];
        yield 'neither of two' => ['onlyIf', 'not high or urgent'];
        yield 'both of two' => ['onlyIf', 'high and urgent'];
        yield 'and with or' => ['onlyIf', 'priority is urgent and status is open or paid is ticked'];
        yield 'a few days' => ['line', 'after a few days remind the owner “Look”'];
        yield 'before what' => ['line', 'remind the owner “Look” 2 days before'];
        yield 'an unknown person' => ['line', 'assign it to petra'];
        yield 'no such value' => ['onlyIf', 'priority is urgend'];
        yield 'half a sentence' => ['line', 'give the owner a task “Ring” due'];
        yield 'too much of it' => ['fires', 'only once on mondays'];
        yield 'a question' => ['line', 'close the ticket?'];
        yield 'a number without a unit' => ['line', 'after 2 remind the owner “Look”'];
        yield 'the opposite of a trigger' => ['when', 'when a ticket is not closed'];
        yield 'thirteen in the afternoon' => ['line', 'after 2 days at 13pm remind the owner “Look”'];
    }

    #[DataProvider('unclear')]
    public function test_what_is_unclear_is_not_guessed(string $part, string $phrase): void
    {
        $read = $this->text()->parsePart($phrase, $part, self::type('ticket'));
        self::assertNull($read->file, json_encode($read->file).'');
        self::assertTrue($read->misread !== [] xor count($read->readings) > 1);
    }

    public function test_what_can_mean_two_things_is_asked(): void
    {
        $asked = fn (string $phrase): array => array_map(
            fn (array $json): string => $this->text()->printPart($json, 'line', self::type('ticket')),
            $this->text()->parseLine($phrase, self::type('ticket'))->readings,
        );
        self::assertSame(
            ['After 3 days at 05:00: Remind the owner “Look”', 'After 3 days at 17:00: Remind the owner “Look”'],
            $asked('remind the owner "Look" after 3 days at 5'),
        );
        self::assertSame(
            ['After 2 days: Give the owner a task “Ring”', 'Give the owner a task “Ring” due 2 days later'],
            $asked('give the owner a task "Ring" in 2 days'),
        );
    }

    public function test_a_near_miss_is_named(): void
    {
        $meant = fn (string $phrase): ?string => $this->text()->parseLine($phrase, self::type('ticket'))->misread[0]->meant ?? null;
        self::assertSame('Priority', $meant('set priorty to high'));
        self::assertSame('Urgent', $meant('set priority to urgnet'));
        self::assertSame('Tomas Weld', $meant('assign it to thomas weld'));
        self::assertNull($meant('set zzz to high'));
    }

    public function test_what_is_passed_over_in_a_hurry_could_not_have_been_meant(): void
    {
        $world = new World;
        foreach (self::phrases() as ['part' => $part, 'on' => $on, 'said' => $said]) {
            foreach (array_filter($said, static fn (int $nth): bool => $nth % 3 === 0, ARRAY_FILTER_USE_KEY) as $phrase) {
                $scope = new Scope(World::schema(), $world, self::type($on), $world->zone());
                $read = static function (bool $isHurried) use ($phrase, $part, $scope): array {
                    $typed = new Typed($phrase, isHurried: $isHurried);

                    return Nearest::of($typed, Parts::slot($part)->parse($typed, 0, $scope, []));
                };
                self::assertSame($read(false), $read(true), $phrase);
            }
        }
    }

    /** Whatever phrases are put together: what was understood is printed, and read again is the same. */
    public function test_phrases_are_mixed(): void
    {
        $random = new Randomizer(new Mt19937(7));
        $of = ['line' => [], 'onlyIf' => [], 'when' => [], 'fires' => [], 'until' => []];
        foreach (self::phrases() as ['part' => $part, 'on' => $on, 'said' => $said, 'printed' => $printed]) {
            if ($on === 'ticket') {
                array_push($of[$part], ...$said, ...[$printed]);
            }
        }
        $bare = static fn (string $said): string => (string) preg_replace('/^(?:only )?(?:if|when|where) /i', '', $said);
        $one = static fn (string $part): string => $of[$part][$random->getInt(0, count($of[$part]) - 1)];
        $understood = 0;
        for ($count = 0; $count < 400; $count++) {
            $part = ['line', 'onlyIf', 'rule'][$count % 3];
            $typed = match ($part) {
                'line' => $one('line').', '.['only if ', 'if ', 'unless '][$random->getInt(0, 2)].$bare($one('onlyIf')),
                'onlyIf' => 'if '.$bare($one('onlyIf')).' '.['and', 'or'][$random->getInt(0, 1)].' '.$bare($one('onlyIf')),
                default => 'When '.(string) preg_replace('/^when(?:ever)? /i', '', $one('when')).', '.$one('line').', '.$one('fires'),
            };
            $type = self::type('ticket');
            $read = $part === 'rule' ? $this->text()->parseSentence($typed, $type) : $this->text()->parsePart($typed, $part, $type);
            $meanings = $read->file === null ? $read->readings : [$read->file];
            foreach ($meanings as $meaning) {
                $printed = $part === 'rule' ? $this->text()->print($meaning) : $this->text()->printPart($meaning, $part, $type);
                $again = $part === 'rule' ? $this->text()->parse($printed)->file : $this->text()->parsePart($printed, $part, $type)->file;
                self::assertTrue(
                    RuleText::same(array_filter($meaning), array_diff_key((array) $again, ['name' => true])),
                    "{$typed}\n{$printed}\n".json_encode($meaning)."\n".json_encode($again),
                );
            }
            $understood += $meanings === [] ? 0 : 1;
        }
        self::assertGreaterThan(250, $understood);
    }

    public function test_a_whole_rule_in_one_sentence(): void
    {
        $read = $this->text()->parseSentence(
            'When a ticket is closed and it is urgent, give whoever created it a task "Say thanks" due in two working days, '
                .'then remind the owner\'s manager "Done" tomorrow at 9am, only once, until it gets a reply',
        );
        self::assertSame([], $read->misread);
        self::assertSame(<<<'TEXT'
            Rule “”
            When a Ticket is changed in Status to Closed
            Only if Priority is Urgent
            Fires once per ticket
            Give the creator a task “Say thanks” due 2 working days later
            After 1 day at 09:00: Remind the owner’s manager “Done”
            Until it gets a reply

            TEXT, $this->text()->print($read->file ?? []));
        self::assertSame('customer', $this->text()->parseSentence('when a customer is added comment "Welcome"')->file['on'] ?? null);
        self::assertNull($this->text()->parseSentence('when a customer is added comment "Welcome"', self::type('ticket'))->file);
    }

    /** @return list<array{part: string, on: string, printed: string, said: list<string>}> */
    private static function phrases(): array
    {
        $phrases = [];
        foreach (file(__DIR__.'/phrases.jsonl', FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            /** @var array{part: string, on: string, printed: string, said: list<string>} $phrase */
            $phrase = json_decode($line, true, 512, JSON_THROW_ON_ERROR);
            $phrases[] = $phrase;
        }

        return $phrases;
    }

    private static function type(string $name): RecordType
    {
        return World::schema()->types[$name];
    }

    private function text(): RuleText
    {
        static $text = null;
        if (! $text instanceof RuleText) {
            $world = new World;
            $world->records['ticket:7'] = World::ticket();
            $text = new RuleText(World::schema(), $world, $world->zone());
        }

        return $text;
    }
}
