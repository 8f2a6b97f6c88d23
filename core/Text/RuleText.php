<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\House\Directory;
use VividLedger\Rule\Cases\CaseLayout;
use VividLedger\Rule\Line\Lines;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Template\LightText;

/** A rule as text, in both directions: as it is printed, and as people say it. */
final readonly class RuleText
{
    public function __construct(
        private Schema $schema,
        private Directory $directory,
        private \DateTimeZone $zone,
    ) {
    }

    /** @param  array<mixed>  $file  a rule file, finished or not */
    public function print(array $file): string
    {
        $node = new Node($file);
        $type = $this->schema->type($node->child('on')->text() ?? '');
        if ($type === null) {
            return RawSlot::raw($file);
        }
        $scope = $this->scope($type);
        // What is not said yet has no row.
        $said = static fn (string $part): array => ($file[$part] ?? []) === [] ? []
            : [Parts::word($part).' '.Parts::slot($part)->print($file[$part], $scope, [])];
        $condition = $file['onlyIf'] ?? null;
        $lines = $node->child('lines')->items();

        return implode("\n", [
            'Rule '.Typed::quote((string) $node->child('name')->text()),
            ...(($node->child('purpose')->text() ?? '') === '' ? [] : ['Purpose '.Typed::quote((string) $node->child('purpose')->text())]),
            ...$said('when'),
            ...(is_array($condition) && ($condition['of'] ?? null) !== [] ? $said('onlyIf') : []),
            ...$said('fires'),
            ...array_map(
                static fn (Node $line, int $indent): string => str_repeat('    ', $indent)
                    .Parts::slot('line')->print($line->raw, $scope, []),
                $lines,
                CaseLayout::of($lines, Lines::headings())->indents,
            ),
            ...(is_array($file['until'] ?? null) ? $said('until') : []),
            ...(is_array($file['never'] ?? null) ? $said('never') : []),
        ])."\n";
    }

    /** A part of a rule file as it is printed. */
    public function printPart(mixed $json, string $part, RecordType $type): string
    {
        return Parts::slot($part)->print($json, $this->scope($type), []);
    }

    /** @param  ?RecordType  $type  that the rule is about where its text does not say so */
    public function parse(string $text, ?RecordType $type = null): TextReading
    {
        $page = new TypedPage($this->schema, fn (RecordType $on): Scope => $this->scope($on), $type);
        foreach (preg_split('/\R/u', $text) ?: [] as $index => $row) {
            if (trim($row) !== '') {
                $page->row($row, $index + 1);
            }
        }

        return $page->reading();
    }

    /** A single line of a rule, as it is typed: "after 2 working days remind the owner’s manager". */
    public function parseLine(string $text, RecordType $type): TextReading
    {
        return $this->parsePart($text, 'line', $type);
    }

    /** @param  string  $part  "line", or the key of the part in a rule file */
    public function parsePart(string $text, string $part, RecordType $type): TextReading
    {
        $scope = $this->scope($type);

        return self::read(...Nearest::heard($text, static fn (Typed $typed): array => $part === 'line'
            ? Parts::slot('line')->parse($typed, 0, $scope, []) : Parts::parse($part, $typed, 0, $scope, isBare: true)));
    }

    /**
     * A whole rule in one sentence: "When a quote is won, give the owner a task “Ring them” due in 2 days, only once".
     *
     * @param  ?RecordType  $type  that it has to be about; null for one that the sentence names
     */
    public function parseSentence(string $text, ?RecordType $type = null): TextReading
    {
        $types = $type === null ? TypedPage::candidates($text, $this->schema, null) : [$type];

        return self::read(...Nearest::heard($text, function (Typed $typed) use ($types): array {
            $found = [];
            foreach ($types as $on) {
                foreach ((new WholeRule)->parse($typed, 0, $this->scope($on), []) as $one) {
                    $found[] = $one->as(['on' => $on->name] + (is_array($one->json) ? $one->json : []));
                }
            }

            return $found;
        }));
    }

    /** @param  list<array<mixed>>  $meanings */
    private static function read(Typed $typed, array $meanings): TextReading
    {
        $read = array_map(self::without(...), $meanings);

        return match (count($read)) {
            0 => new TextReading(null, [NearMiss::of($typed)]),
            1 => new TextReading($read[0]),
            default => new TextReading(null, [], $read),
        };
    }

    /**
     * Without what a sentence says and a file need not keep.
     *
     * @param  array<mixed>  $json
     * @return array<mixed>
     */
    public static function without(array $json): array
    {
        $kept = array_map(static fn (mixed $each): mixed => is_array($each) ? self::without($each) : $each, $json);

        return array_is_list($kept) ? $kept : array_diff_key($kept, ['' => true]);
    }

    /** Whether two pieces of rule files mean the same: nothing and no key are alike, and so is the order of keys. */
    public static function same(mixed $one, mixed $other): bool
    {
        return json_encode(self::plain($one)) === json_encode(self::plain($other));
    }

    /** What a rule file says, without what goes without saying. */
    public static function plain(mixed $json): mixed
    {
        if (! is_array($json)) {
            return $json;
        }
        $plain = array_map(self::plain(...), $json);
        if (! array_is_list($plain)) {
            if (is_string($plain['body'] ?? null) && ($plain['channel'] ?? null) !== 'sms') {
                $plain['body'] = LightText::plain($plain['body']);
            }
            $plain = array_filter(
                $plain,
                static fn (mixed $value, int|string $key): bool => $key !== '' && $value !== null
                    && ! ($key === 'channel' && $value === 'email'),
                ARRAY_FILTER_USE_BOTH,
            );
            ksort($plain);
        }

        return $plain;
    }

    private function scope(RecordType $type): Scope
    {
        return new Scope($this->schema, $this->directory, $type, $this->zone);
    }
}
