<?php

declare(strict_types=1);

namespace VividLedger\Text;

use Closure;
use VividLedger\Rule\Line\Lines;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;

/** A whole rule that is typed row by row. */
final class TypedPage
{
    /** @var array<string, mixed> */
    private array $file = [];

    /** @var list<mixed> */
    private array $lines = [];

    /** @var list<Misreading> */
    private array $misread = [];

    /**
     * @param  Closure(RecordType): Scope  $scope
     * @param  ?RecordType  $type  that the rule is about where its text does not say so
     */
    public function __construct(
        private readonly Schema $schema,
        private readonly Closure $scope,
        private ?RecordType $type = null,
    ) {
    }

    public function row(string $row, int $number): void
    {
        $typed = new Typed($row, isLoose: false);
        if ($this->quoted($typed, 'Rule', 'name') || $this->quoted($typed, 'Purpose', 'purpose')) {
            return;
        }
        [$typed, $read] = Nearest::heard($row, fn (Typed $typed): array => $this->parts($typed, $row));
        if ($read === []) {
            $this->misread[] = NearMiss::of($typed, $number);
        } elseif (count($read) > 1) {
            $this->misread[] = new Misreading($number, 0, trim($row), [], [], meanings: array_map($this->said(...), $read));
        } else {
            $this->keep(RuleText::without($read[0]));
        }
    }

    public function reading(): TextReading
    {
        if (! isset($this->file['when']) && $this->misread === []) {
            $this->misread[] = new Misreading(1, 0, '', ['When a …'], []);
        }

        return new TextReading($this->misread === [] ? $this->file + ['lines' => $this->lines] : null, $this->misread);
    }

    /**
     * The record types that a sentence can be about: those it names, or the one at hand.
     *
     * @return list<RecordType>
     */
    public static function candidates(string $text, Schema $schema, ?RecordType $type): array
    {
        $outside = (string) preg_replace('/“[^”]*”|"[^"]*"/u', '', $text);
        $named = [];
        foreach ($schema->types as $candidate) {
            $names = preg_quote($candidate->label, '/').'|'.preg_quote($candidate->plural, '/');
            if (preg_match("/(?<![\\p{L}\\p{N}])(?:{$names})(?![\\p{L}\\p{N}])/iu", $outside) === 1) {
                $named[] = $candidate;
            }
        }

        return array_values(array_unique([...$named, ...($type === null ? [] : [$type])], SORT_REGULAR));
    }

    private static function isHeading(mixed $line): bool
    {
        return is_array($line) && is_string($line['kind'] ?? null) && isset(Lines::headings()[$line['kind']]);
    }

    /** Whether the row is a word and something of one's own in quotes, which is kept under a key. */
    private function quoted(Typed $typed, string $word, string $key): bool
    {
        $behind = $typed->words(0, $word);
        $said = $behind === null ? null : $typed->quoted($behind);
        if ($said === null || ! $typed->isDone($said[1])) {
            return false;
        }
        $this->file[$key] = $said[0];

        return true;
    }

    /** @return list<Parsed> what a row can be: a part of the rule, or a line */
    private function parts(Typed $typed, string $row): array
    {
        $found = [];
        foreach (isset($this->file['when']) ? [] : self::candidates($row, $this->schema, $this->type) as $type) {
            foreach (Parts::parse('when', $typed, 0, ($this->scope)($type), isBare: true) as $one) {
                $found[] = $one->as(['when' => $one->json, 'on' => $type->name]);
            }
        }
        $typed->expect('When', 0);
        if ($this->type === null) {
            return $found;
        }
        $scope = ($this->scope)($this->type);
        foreach (array_diff(Parts::keys(), ['when', ...array_keys($this->file)]) as $part) {
            // People leave the word of a part out; what then can be a line as well is asked about.
            foreach (Parts::parse($part, $typed, 0, $scope, isBare: $part === 'onlyIf' || $part === 'fires') as $one) {
                $found[] = $one->as([$part => $one->json]);
            }
        }
        foreach (Parts::slot('line')->parse($typed, 0, $scope, []) as $one) {
            $found[] = $one->as(['line' => $one->json]);
            // The first line of a case can stand in the row of its heading: "Otherwise: remind the owner “Look”".
            $goesOn = self::isHeading($one->json) && ! $typed->isDone($one->end);
            foreach ($goesOn ? Parts::slot('line')->parse($typed, $one->end, $scope, []) : [] as $line) {
                $found[] = (new Parsed([], $line->end, $one->cost + $line->cost))->as(['lines' => [$one->json, $line->json]]);
            }
        }

        return $found;
    }

    /**
     * A row as it is printed.
     *
     * @param  array<mixed>  $read
     */
    private function said(array $read): string
    {
        $type = is_string($read['on'] ?? null) ? $this->schema->type($read['on']) : $this->type;
        $part = (string) array_key_first(array_diff_key($read, ['on' => true]));

        if ($type === null) {
            return '';
        }

        return trim(Parts::word($part).' '.Parts::slot($part)->print($read[$part] ?? null, ($this->scope)($type), []));
    }

    /** @param  array<mixed>  $read */
    private function keep(array $read): void
    {
        foreach ($read as $key => $value) {
            if ($key === 'line' || $key === 'lines') {
                array_push($this->lines, ...($key === 'line' || ! is_array($value) ? [$value] : array_values($value)));
            } else {
                $this->file[(string) $key] = $value;
            }
        }
        if (is_string($this->file['on'] ?? null)) {
            $this->type = $this->schema->type($this->file['on']);
        }
    }
}
