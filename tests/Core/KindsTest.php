<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VividLedger\Condition\ConditionReader;
use VividLedger\Condition\Operator\Operators;
use VividLedger\People\PersonExpressions;
use VividLedger\Rule\Guard\RepeatGuards;
use VividLedger\Rule\Line\Lines;
use VividLedger\Rule\Recipient\Recipients;
use VividLedger\Rule\Timing\Timings;
use VividLedger\Rule\Trigger\Triggers;
use VividLedger\Rule\Value\AssignedValues;
use VividLedger\Slip\NextSlot;
use VividLedger\Slip\Questions;

/** What other parts want to know of a kind they ask through a small interface: no file elsewhere looks which class it has. */
final class KindsTest extends TestCase
{
    /** Kinds that are one word on the page, which takes more than their sentence to tell. */
    private const OF_ONE_WORD = ['Escalate', 'FoundPerson', 'MadeOne', 'Shifted'];

    /** @return list<string> the files of all kinds */
    private static function files(): array
    {
        return array_map(static fn (string $kind): string => (string) (new \ReflectionClass($kind))->getFileName(), [
            ...Lines::ALL, ...Triggers::ALL, ...RepeatGuards::ALL, ...Timings::ALL, ...AssignedValues::ALL, ...Recipients::ALL,
            ...PersonExpressions::ALL, ...Questions::ALL, ...NextSlot::ALL, ...array_values(ConditionReader::GROUPS),
            ...array_values(array_map(get_class(...), Operators::all())),
        ]);
    }

    public function test_a_kind_says_its_sentence_once(): void
    {
        $saying = array_filter(
            self::files(),
            static fn (string $file): bool => preg_match('/context->(glue|word|choice)\(/', (string) file_get_contents($file)) === 1,
        );
        self::assertEqualsCanonicalizing(
            self::OF_ONE_WORD,
            array_map(static fn (string $file): string => basename($file, '.php'), array_values($saying)),
        );
    }

    public function test_no_file_outside_their_folder_asks_a_kind_for_its_class(): void
    {
        $kinds = self::files();
        $names = array_map(static fn (string $file): string => basename($file, '.php'), $kinds);
        $folders = array_combine($names, array_map(dirname(...), $kinds));
        $found = [];
        foreach (['core', 'app'] as $root) {
            $files = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(dirname(__DIR__, 2)."/{$root}", 4096));
            foreach ($files as $file) {
                preg_match_all('/instanceof \\\\?(?:\w+\\\\)*(\w+)/', (string) file_get_contents((string) $file), $asked);
                foreach ($asked[1] as $class) {
                    if (isset($folders[$class]) && $folders[$class] !== dirname((string) $file)) {
                        $found[] = "{$file}: {$class}";
                    }
                }
            }
        }
        self::assertGreaterThan(60, count($folders));
        self::assertSame([], $found);
    }
}
