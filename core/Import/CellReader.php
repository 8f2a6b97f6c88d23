<?php

declare(strict_types=1);

namespace VividLedger\Import;

use VividLedger\Record\InvalidValue;
use VividLedger\Record\Value;
use VividLedger\Schema\Choice;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Words\Words;

/** Reads cells of a table for the fields they are for, as people and other programs write them. */
final readonly class CellReader
{
    private const YES = ['1', 'true', 'yes', 'y', 'x', '✓', 'ticked', 'on', 'ja', 'wahr', 'oui', 'si', 'sí'];

    private const NO = ['', '0', 'false', 'no', 'n', '-', 'not ticked', 'off', 'nein', 'falsch', 'non'];

    private const MONTHS = [
        'jan' => 1, 'feb' => 2, 'mar' => 3, 'mär' => 3, 'mrz' => 3, 'apr' => 4, 'may' => 5, 'mai' => 5, 'jun' => 6, 'jul' => 7, 'aug' => 8,
        'sep' => 9, 'oct' => 10, 'okt' => 10, 'nov' => 11, 'dec' => 12, 'dez' => 12,
    ];

    public function __construct(private Lookup $lookup, private \DateTimeZone $zone)
    {
    }

    /**
     * @return string|int|bool|null the value in the shape the core keeps
     *
     * @throws InvalidValue
     */
    public function read(Field $field, string $cell, Convention $convention): string|int|bool|null
    {
        $cell = trim($cell, " \t\u{A0}");
        if ($cell === '' && $field->type !== FieldType::Tick) {
            return null;
        }

        return Value::of($field, match ($field->type) {
            FieldType::Number, FieldType::Money, FieldType::Percent => self::number($field, $cell, $convention),
            FieldType::Tick => self::tick($field, $cell),
            FieldType::Date => self::date($field, $cell, $convention),
            FieldType::DateTime => $this->moment($field, $cell, $convention),
            FieldType::Choice => self::choice($field, $cell),
            FieldType::Choices => array_map(
                static fn (string $one): string => self::choice($field, trim($one)),
                preg_split('/[,;|]/', $cell, -1, PREG_SPLIT_NO_EMPTY) ?: [],
            ),
            FieldType::Tags => array_map(trim(...), preg_split('/[,;|]/', $cell, -1, PREG_SPLIT_NO_EMPTY) ?: []),
            FieldType::Person => $this->lookup->person($cell)
                ?? throw new InvalidValue(
                    'unknown_value',
                    Words::say('{field}: nobody at work here is called ‘{cell}’.', field: $field->label, cell: $cell),
                ),
            FieldType::Reference => $this->record($field, $cell),
            default => $cell,
        });
    }

    private function record(Field $field, string $cell): int
    {
        $found = $this->lookup->records((string) $field->target, $cell);

        return count($found) === 1 ? $found[0] : throw new InvalidValue(
            'unknown_value',
            $found === [] ? Words::say('{field}: there is no ‘{cell}’.', field: $field->label, cell: $cell)
                : Words::say('{field}: more than one is called ‘{cell}’. Give its number.', field: $field->label, cell: $cell),
        );
    }

    private static function number(Field $field, string $cell, Convention $convention): string
    {
        $plain = preg_replace('/[\s\x{A0}\x{202F}\'’]|[€£$%]|[A-Z]{3}/u', '', $cell) ?? '';
        $plain = $convention->decimalComma ? str_replace(['.', ','], ['', '.'], $plain) : str_replace(',', '', $plain);
        if (preg_match('/^\((.+)\)$/', $plain, $part) === 1) {
            // As books write what is owed.
            $plain = "-{$part[1]}";
        }

        return preg_match('/^[+-]?\d*\.?\d+$/', $plain) === 1 ? ltrim($plain, '+')
            : throw new InvalidValue('wrong_type', Words::say('{field}: ‘{cell}’ is no number.', field: $field->label, cell: $cell));
    }

    private static function tick(Field $field, string $cell): bool
    {
        $said = mb_strtolower($cell);

        return in_array($said, self::YES, true) ? true : (in_array($said, self::NO, true) ? false
            : throw new InvalidValue(
                'wrong_type',
                Words::say('{field}: ‘{cell}’ is neither yes nor no.', field: $field->label, cell: $cell),
            ));
    }

    private static function choice(Field $field, string $cell): string
    {
        $said = mb_strtolower($cell);
        foreach ($field->choices as $choice) {
            if (mb_strtolower($choice->label) === $said || $choice->value === $said) {
                return $choice->value;
            }
        }
        $offered = implode(', ', array_map(
            static fn (Choice $choice): string => $choice->label,
            array_filter($field->choices, static fn (Choice $choice): bool => ! $choice->isRetired),
        ));
        throw new InvalidValue(
            'unknown_value',
            Words::say('{field}: there is no ‘{cell}’; there are {offered}.', field: $field->label, cell: $cell, offered: $offered),
        );
    }

    private static function date(Field $field, string $cell, Convention $convention): string
    {
        return self::day($cell, $convention)
            ?? throw new InvalidValue('wrong_type', Words::say('{field}: ‘{cell}’ is no date.', field: $field->label, cell: $cell));
    }

    private function moment(Field $field, string $cell, Convention $convention): string
    {
        if (preg_match('/^\d{4}-\d{2}-\d{2}T.*(Z|[+-]\d{2}:?\d{2})$/', $cell) === 1) {
            return $cell;
        }
        [$day, $time] = preg_match('/^(.*?)[ T,]+(\d{1,2}:\d{2}(?::\d{2})?)$/', $cell, $part) === 1 ? [$part[1], $part[2]]
            : [$cell, '00:00'];
        $day = self::day($day, $convention);
        try {
            return Value::instantText(new \DateTimeImmutable(($day ?? '?')." {$time}", $this->zone));
        } catch (\Exception) {
            throw new InvalidValue('wrong_type', Words::say('{field}: ‘{cell}’ is no moment.', field: $field->label, cell: $cell));
        }
    }

    private static function day(string $cell, Convention $convention): ?string
    {
        [$year, $month, $day] = match (true) {
            preg_match('/^(\d{4})[-.\/](\d{1,2})[-.\/](\d{1,2})(?:[T ]\d{1,2}:\d{2}.*)?$/', $cell, $part) === 1 => [$part[1], $part[2],
                $part[3]],
            preg_match('/^(\d{1,2})[-.\/ ]+(\d{1,2})[-.\/ ]+(\d{4}|\d{2})$/', $cell, $part) === 1 => $convention->monthFirst
                ? [$part[3], $part[1], $part[2]] : [$part[3], $part[2], $part[1]],
            preg_match('/^(\d{1,2})(?:st|nd|rd|th|\.)?[- ]+(\p{L}{3,})[-. ]*(\d{4}|\d{2})$/u', $cell, $part) === 1 => [
                $part[3], self::MONTHS[mb_substr(mb_strtolower($part[2]), 0, 3)] ?? 0, $part[1],
            ],
            preg_match('/^(\p{L}{3,})\.?[- ]+(\d{1,2})(?:st|nd|rd|th)?,?[- ]+(\d{4})$/u', $cell, $part) === 1 => [
                $part[3], self::MONTHS[mb_substr(mb_strtolower($part[1]), 0, 3)] ?? 0, $part[2],
            ],
            default => [0, 0, 0],
        };
        $whole = (int) $year < 100 && strlen((string) $year) === 2 ? 2000 + (int) $year : (int) $year;

        return checkdate((int) $month, (int) $day, $whole) && $whole >= 1000
            ? sprintf('%04d-%02d-%02d', $whole, (int) $month, (int) $day) : null;
    }
}
