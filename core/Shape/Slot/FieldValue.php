<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use Closure;
use VividLedger\Record\Display;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\FieldReader;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** A value of a field as a rule file writes it: texts in quotes, choices by their labels, people by their names. */
final readonly class FieldValue implements Worded
{
    private const YES = ['yes', 'true', 'on', 'checked', 'set'];

    private const NO = ['no', 'false', 'off', 'unticked', 'unchecked', 'not checked', 'not set'];

    private const SIGNS = '€|£|\$|EUR|GBP|USD';

    /**
     * @param  Closure(Scope, array<mixed>): ?Field  $field  whose value it is
     * @param  string  $key  of the place before it that names the field
     */
    public function __construct(private Closure $field, private string $key = '')
    {
    }

    /** @param  string  $key  of the object around it that names the field; of a list, its only one */
    public static function of(string $key): self
    {
        return new self(static function (Scope $scope, array $around) use ($key): ?Field {
            $name = $around[$key] ?? null;
            $name = is_array($name) ? (count($name) === 1 ? ($name[0] ?? null) : null) : $name;

            return is_string($name) ? $scope->schema->path($scope->type, $name)?->field : null;
        }, $key);
    }

    public static function ofField(Field $field): self
    {
        return new self(static fn (): Field => $field);
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        $field = ($this->field)($scope, $around);
        if ($field === null) {
            return null;
        }
        $text = is_string($json) ? $json : '';

        return match (true) {
            $field->type->isText() || $field->type === FieldType::Tags => $text !== '' ? Typed::quote($text) : null,
            $field->type === FieldType::Tick => is_bool($json) ? ($json ? 'ticked' : 'not ticked') : null,
            $field->type->isDecimal() => preg_match('/^-?\d+(\.\d+)?$/D', $text) === 1
                ? $text.($field->type === FieldType::Percent ? ' %' : '') : null,
            $field->type === FieldType::Date => preg_match('/^\d{4}-\d{2}-\d{2}$/D', $text) === 1
                ? (new Display($scope->directory, $scope->zone))->of($field, $text) : null,
            $field->type === FieldType::DateTime => preg_match('/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?Z$/D', $text) === 1 ? $text : null,
            $field->type === FieldType::Reference => preg_match('/^[A-Z]+-\d+$/D', $text) === 1 ? $text : null,
            default => ($label = array_search($json, self::labels($field, $scope), true)) === false ? null : (string) $label,
        };
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $field = ($this->field)($scope, $around);

        return match (true) {
            $field === null => [],
            $field->type === FieldType::Tags => [
                ...(new Quoted)->parse($typed, $at, $scope, $around),
                ...self::pattern($typed, $at, '(?!(?:and|or|to|from|only|if|is|not|tags?)\b)[\p{L}\p{N}][\p{L}\p{N}_-]*', '“…”', 1),
            ],
            $field->type->isText() => (new Quoted)->parse($typed, $at, $scope, $around),
            $field->type->isDecimal() => self::number($typed, $at, $scope),
            $field->type === FieldType::Date => self::day($typed, $at),
            $field->type === FieldType::DateTime => array_map(
                static fn (Parsed $one): Parsed => $one->as(is_string($one->json) ? strtoupper($one->json) : null),
                self::pattern($typed, $at, '\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2})?Z', 'a moment, such as 2026-11-24T09:40:00Z'),
            ),
            $field->type === FieldType::Reference => array_map(
                static fn (Parsed $one): Parsed => $one->as(is_string($one->json) ? strtoupper($one->json) : null),
                self::pattern($typed, $at, '[A-Z]+-\d+', 'the number of a record'),
            ),
            default => self::labelled($typed, $at, $field, $scope),
        };
    }

    public function read(Context $context, Node $node, Filled $around): string|int|bool|null
    {
        $field = $around->any($this->key, Field::class);

        return $field === null ? null : FieldReader::value($context, $field, $node, Editor::value($context->type->name, $field));
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return Json::ref('value');
    }

    /** @return list<Parsed> */
    private static function labelled(Typed $typed, int $at, Field $field, Scope $scope): array
    {
        $also = match ($field->type) {
            FieldType::Tick => array_fill_keys(self::YES, true) + array_fill_keys(self::NO, false),
            FieldType::Person => self::shortNames($scope),
            default => [],
        };

        $found = (new Labels(static fn (): array => self::labels($field, $scope), $also))->parse($typed, $at, $scope, []);
        $isQuoted = $field->type === FieldType::Choice && $typed->isLoose && str_starts_with(ltrim($typed->rest($at)), '“');
        $quoted = $isQuoted ? $typed->quoted($at) : null;
        [$said, $end] = $quoted ?? ['', $at];
        foreach ($quoted === null ? [] : $field->choices as $choice) {
            if (mb_strtolower($choice->label) === mb_strtolower(trim($said))) {
                $found[] = new Parsed($choice->value, $end, 1);
            }
        }

        return $found;
    }

    /** @return array<string, string|bool> */
    private static function labels(Field $field, Scope $scope): array
    {
        if ($field->type === FieldType::Tick) {
            return ['ticked' => true, 'not ticked' => false];
        }
        $labels = $field->type === FieldType::Person ? self::names($scope) : [];
        foreach ($field->choices as $choice) {
            $labels[$choice->label] = $choice->value;
        }

        return $labels;
    }

    /** @return array<string, string> handles of everybody at work, by name */
    public static function names(Scope $scope): array
    {
        return $scope->once('names', static function () use ($scope): array {
            $names = [];
            foreach ($scope->directory->peopleAtWork() as $person) {
                $names[isset($names[$person->name]) ? $person->handle : $person->name] = $person->handle;
            }

            return $names;
        });
    }

    /** @return array<string, string> handles by the first names that only one has */
    public static function shortNames(Scope $scope): array
    {
        return $scope->once('short names', static function () use ($scope): array {
            $short = [];
            foreach (self::names($scope) as $name => $handle) {
                $short[explode(' ', (string) $name)[0]][] = $handle;
            }

            return array_map(
                static fn (array $handles): string => $handles[0],
                array_filter($short, static fn (array $handles): bool => count($handles) === 1),
            );
        });
    }

    /** @return list<Parsed> */
    private static function number(Typed $typed, int $at, Scope $scope): array
    {
        $found = $typed->pattern(
            $at,
            '(?:(?:'.self::SIGNS.')\s*)?(-?\d+(?:,\d{3}(?!\d))*(?:\.\d+)?)(?:\s*(?:%|percent\b|per\s+cent\b))?'
                .'(?:\s+(?:(?-i:[A-Z]{3})|euros?|pounds?|dollars?)\b|\s*[€£$])?',
            'a number',
        );
        if ($found !== null) {
            return [new Parsed(str_replace(',', '', $found[0][1]), $found[1])];
        }

        return array_map(
            static fn (array $word): Parsed => new Parsed((string) $word[0], $word[1], 1),
            array_slice($typed->labels($at, Counted::words(), 2), 0, 1),
        );
    }

    /** @return list<Parsed> */
    private static function day(Typed $typed, int $at): array
    {
        $found = $typed->pattern(
            $at,
            '(\d{4}-\d{2}-\d{2})|(\d{1,2})(?:st|nd|rd|th)?\s+(\p{L}{3,9})\s+(\d{4})|(\p{L}{3,9})\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})',
            'a date, such as 24 Nov 2026',
        );
        if ($found === null) {
            $begun = $typed->pattern($at, '\d{1,2}(?!\d)(?:\s+\p{L}{3,9})?', '', 3);
            if ($begun !== null) {
                $typed->expect('a date, such as 24 Nov 2026', $begun[1], 2);
            }

            return [];
        }
        [, $iso, $day, $month, $year, $monthFirst, $dayThen, $yearThen] = array_pad($found[0], 8, '');
        $said = $iso !== '' ? $iso : ($day !== '' ? "{$day} {$month} {$year}" : "{$dayThen} {$monthFirst} {$yearThen}");
        foreach (['!Y-m-d', '!j M Y', '!j F Y'] as $format) {
            $date = \DateTimeImmutable::createFromFormat($format, str_replace('Sept ', 'Sep ', $said), new \DateTimeZone('UTC'));
            if ($date !== false && \DateTimeImmutable::getLastErrors() === false) {
                return [new Parsed($date->format('Y-m-d'), $found[1], $day === '' && $iso === '' ? 1 : 0)];
            }
        }

        return [];
    }

    /** @return list<Parsed> */
    private static function pattern(Typed $typed, int $at, string $pattern, string $expected, int $cost = 0): array
    {
        $found = $typed->pattern($at, $pattern, $expected, $cost === 0 ? 2 : 3);

        return $found === null ? [] : [new Parsed($found[0][0], $found[1], $cost)];
    }
}
