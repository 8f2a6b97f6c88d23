<?php

declare(strict_types=1);

namespace Bench;

use App\Demo\Demo;
use App\Store\Types\SchemaStore;
use Tests\Core\Support\World;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Schema\RecordType;
use VividLedger\Text\RuleText;
use VividLedger\Text\TextReading;

/** How much of what people type is understood, how long that takes, and how long a rule file of ten lines takes to read. */
final class PhraseBench
{
    private const PARTS = ['only_if' => 'onlyIf'];

    public static function run(): void
    {
        app(Demo::class)->loadKept();
        $text = app(RuleText::class);
        $schema = app(SchemaStore::class)->schema();
        [$right, $wrong, $asked, $all] = [0, 0, 0, 0];
        $said = [];
        $printed = [];
        foreach (file(__DIR__.'/phrases.jsonl', FILE_IGNORE_NEW_LINES) ?: [] as $line) {
            /** @var array{on: string, part: string, canonical: string, said: list<string>} $phrase */
            $phrase = json_decode($line, true, 512, JSON_THROW_ON_ERROR);
            $type = $schema->types[$phrase['on']];
            $part = self::PARTS[$phrase['part']] ?? $phrase['part'];
            $meant = $text->parsePart($phrase['canonical'], $part, $type)->file;
            foreach ($phrase['said'] as $one) {
                $read = $text->parsePart($one, $part, $type);
                $isRight = $meant !== null && $read->file !== null && RuleText::same($read->file, $meant);
                $all++;
                $right += $isRight ? 1 : 0;
                $wrong += $read->file !== null && ! $isRight ? 1 : 0;
                $asked += $read->readings === [] ? 0 : 1;
                $said[] = [$one, $part, $type];
                $printed[] = [$meant === null ? $one : $text->printPart($meant, $part, $type), $part, $type];
            }
        }
        Figures::note("{$right} of {$all} phrases are understood, {$asked} asked about, {$wrong} read as something else");
        Figures::one('phrases understood', 100 * $right / $all, '%', 'at least 85, none wrongly');
        Figures::pair('a phrase read', self::time($text, $said), 'the same as it is printed', self::time($text, $printed), 'ms', 10);
        self::file();
    }

    /** @param  list<array{string, string, RecordType}>  $typed */
    private static function time(RuleText $text, array $typed): float
    {
        $times = [];
        foreach ($typed as [$one, $part, $type]) {
            $start = hrtime(true);
            $read = $text->parsePart($one, $part, $type);
            $times[] = (hrtime(true) - $start) / 1e6;
            assert($read instanceof TextReading);
        }

        return Timing::median($times);
    }

    private static function file(): void
    {
        $world = new World;
        $lines = [];
        for ($line = 1; $line <= 10; $line++) {
            $lines[] = [
                'kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Task {number}', 'due' => ['amount' => 1, 'unit' => 'day'],
            ]
                + ['at' => ['kind' => 'after', 'amount' => $line, 'unit' => 'day']];
        }
        $json = json_encode(['lines' => $lines] + World::file(), JSON_THROW_ON_ERROR);
        $reader = new RuleReader(World::schema(), $world, $world->zone());
        [$ours, $floor] = [[], []];
        for ($round = 0; $round < 300; $round++) {
            $start = hrtime(true);
            $file = json_decode($json, true, 512, JSON_THROW_ON_ERROR);
            $between = hrtime(true);
            $rule = is_array($file) ? $reader->read($file)->rule : null;
            $rule?->condition->compile();
            $ours[] = (hrtime(true) - $between) / 1e6;
            $floor[] = ($between - $start) / 1e6;
        }
        Figures::pair('a rule file of ten lines read and compiled', Timing::median($ours), 'decoding it', Timing::median($floor), 'ms', 40);
    }
}
