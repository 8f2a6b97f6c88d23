<?php

declare(strict_types=1);

namespace App\Store\Rules;

use App\Store\DomainError;
use App\Store\JsonLines;
use App\Store\RefusedFor;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Words\Words;

/** Rules as files: JSON that fits docs/schema/rule.schema.json. */
final readonly class RuleFile
{
    /** Of one that somebody is still writing; it fits a schema of its own, which leaves out whatever is not there yet. */
    public const UNFINISHED = 'vivid-ledger/rule-draft/1';

    public const DRAFT_SCHEMA = 'docs/schema/rule-draft.schema.json';

    public function __construct(private RuleReader $reader)
    {
    }

    /**
     * @param  array<mixed>  $file
     * @param  bool  $isFinished  whether it reads soundly
     */
    public function write(array $file, bool $isFinished = true): string
    {
        return json_encode(
            $isFinished ? ['$schema' => basename(RuleSchema::PATH), 'format' => RuleReader::FORMAT]
                + self::filled(array_diff_key($file, ['proofs' => true])) + array_intersect_key($file, ['proofs' => true])
                : ['$schema' => basename(self::DRAFT_SCHEMA), 'format' => self::UNFINISHED] + $file,
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
     * @throws DomainError with every problem at its line
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
        $isUnfinished = is_object($data) && ($data->format ?? null) === self::UNFINISHED;
        $problems = array_map(
            static fn (array $problem): array => $problem + ['line' => JsonLines::nearest($lines, $problem['at'])],
            RuleSchema::problems($data, $isUnfinished ? self::DRAFT_SCHEMA : RuleSchema::PATH),
        );
        if ($problems === []) {
            $file = json_decode($text, true, 64, JSON_THROW_ON_ERROR);
            unset($file['$schema'], $file['format']);
            if ($isUnfinished) {
                // What it lacks is told where it is written on.
                return $file;
            }
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

    /**
     * What is left empty says as much as what is left out; and of an empty list nobody knows whether it was an object.
     *
     * @param  array<mixed>  $json
     * @return array<mixed>
     */
    public static function filled(array $json): array
    {
        $filled = array_map(static fn (mixed $value): mixed => is_array($value) ? self::filled($value) : $value, $json);

        return array_is_list($json) ? $filled : array_filter(
            $filled,
            static fn (mixed $value, int|string $key): bool => $value !== null && ($value !== [] || $key === 'of' || $key === 'lines'),
            ARRAY_FILTER_USE_BOTH,
        );
    }

    /** @param  list<array{at: string, code: string, message: string, line: int}>  $problems */
    private function refusal(array $problems): DomainError
    {
        usort($problems, static fn (array $one, array $other): int => $one['line'] <=> $other['line']);

        return new DomainError('malformed_rule', Words::counted(
            count($problems),
            'The file has one problem. Nothing was imported.|The file has {count} problems. Nothing was imported.',
        ), RefusedFor::Invalid, $problems);
    }
}
