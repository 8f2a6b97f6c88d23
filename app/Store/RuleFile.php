<?php

declare(strict_types=1);

namespace App\Store;

use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Words\Words;

/** Rules as files: JSON that fits docs/schema/rule.schema.json. */
final readonly class RuleFile
{
    public function __construct(private RuleReader $reader)
    {
    }

    /** @param  array<mixed>  $file */
    public function write(array $file): string
    {
        return json_encode(
            ['$schema' => 'rule.schema.json', 'format' => RuleReader::FORMAT] + $file,
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        )."\n";
    }

    /**
     * @param  array<string, mixed>  $file  as it travels
     * @return array<string, mixed> the rule, without what only the file needs
     */
    public function plain(array $file): array
    {
        return array_diff_key($file, ['$schema' => true, 'format' => true]);
    }

    /**
     * @return array<mixed> the rule, without what only the file needs
     *
     * @throws Refused with every problem at its line
     */
    public function read(string $text): array
    {
        try {
            $data = json_decode($text, false, 64, JSON_THROW_ON_ERROR);
        } catch (\JsonException) {
            $line = JsonLines::firstBad($text);
            throw $this->refusal([
                ['at' => '', 'code' => 'malformed_json', 'message' => Words::say(
                    'This is not JSON: line {line} cannot be read.',
                    line: $line,
                ), 'line' => $line],
            ]);
        }
        $lines = JsonLines::of($text);
        $problems = array_map(
            static fn (array $problem): array => $problem + ['line' => JsonLines::nearest($lines, $problem['at'])],
            RuleSchema::problems($data),
        );
        if ($problems === []) {
            $file = json_decode($text, true, 64, JSON_THROW_ON_ERROR);
            unset($file['$schema'], $file['format']);
            $page = $this->reader->strictly(array_diff_key($file, ['proofs' => true]));
            if ($page->problems === []) {
                return $file;
            }
            $problems = array_map(
                static fn (array $problem): array => $problem + ['line' => JsonLines::nearest($lines, $problem['at'])],
                RuleStore::listed($page->problems),
            );
        }
        throw $this->refusal($problems);
    }

    /** @param  list<array{at: string, code: string, message: string, line: int}>  $problems */
    private function refusal(array $problems): Refused
    {
        usort($problems, static fn (array $one, array $other): int => $one['line'] <=> $other['line']);

        return new Refused('malformed_rule', Words::counted(
            count($problems),
            'The file has one problem. Nothing was imported.|The file has {count} problems. Nothing was imported.',
        ), RefusedFor::Invalid, $problems);
    }
}
