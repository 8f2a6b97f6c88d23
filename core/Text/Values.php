<?php

declare(strict_types=1);

namespace VividLedger\Text;

use VividLedger\Record\Display;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Scope;

/** Values of a field as a rule file writes them: texts in quotes, choices by their labels, people by their names. */
final class Values
{
    /** @param  string  $key  of the object around it that names the field; of a list, its only one */
    public static function ofField(string $key): Simple
    {
        $field = static function (Scope $scope, array $around) use ($key): ?Field {
            $name = $around[$key] ?? null;
            $name = is_array($name) ? (count($name) === 1 ? ($name[0] ?? null) : null) : $name;

            return Fields::of($scope, $name);
        };

        return new Simple(
            static fn (mixed $json, Scope $scope, array $around): ?string => ($of = $field($scope, $around)) === null ? null
                : self::print($json, $of, $scope),
            static fn (Cursor $cursor, Scope $scope, array $around): ?array => ($of = $field($scope, $around)) === null ? null
                : self::parse($cursor, $of, $scope),
        );
    }

    public static function print(mixed $json, Field $field, Scope $scope): ?string
    {
        return match (true) {
            $field->type->isText() || $field->type === FieldType::Tags => is_string($json) && $json !== '' ? Cursor::quote($json) : null,
            $field->type === FieldType::Tick => is_bool($json) ? ($json ? 'ticked' : 'not ticked') : null,
            $field->type->isDecimal() => is_string($json)
                && preg_match('/^-?\d+(\.\d+)?$/', $json) === 1 ? $json.($field->type === FieldType::Percent ? ' %' : '') : null,
            $field->type === FieldType::Date => is_string($json) && preg_match(
                '/^\d{4}-\d{2}-\d{2}$/',
                $json,
            ) === 1 ? (new Display($scope->directory, $scope->zone))->of($field, $json) : null,
            $field->type === FieldType::DateTime => is_string($json) && preg_match(
                '/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?Z$/',
                $json,
            ) === 1 ? $json : null,
            $field->type === FieldType::Reference => is_string($json) && preg_match('/^[A-Z]+-\d+$/', $json) === 1 ? $json : null,
            default => ($label = array_search($json, self::labels($field, $scope), true)) === false ? null : (string) $label,
        };
    }

    /** @return ?array{mixed} */
    public static function parse(Cursor $cursor, Field $field, Scope $scope): ?array
    {
        if ($field->type->isText() || $field->type === FieldType::Tags) {
            return ($text = $cursor->quoted()) === null ? null : [$text];
        }
        if ($field->type->isDecimal()) {
            $found = $cursor->pattern('(?:[€£$]\s*)?(-?\d+(?:,\d{3}(?!\d))*(?:\.\d+)?)(?:\s*%)?(?:\s+(?-i:[A-Z]{3})\b)?', 'a number');

            return $found === null ? null : [str_replace(',', '', $found[1])];
        }
        if ($field->type === FieldType::Date) {
            $found = $cursor->pattern('\d{4}-\d{2}-\d{2}|\d{1,2}\s+\p{L}{3,9}\s+\d{4}', 'a date, such as 24 Nov 2026');
            $day = $found === null ? false : \DateTimeImmutable::createFromFormat(
                '!'.(ctype_digit($found[0][3]) && $found[0][4] === '-' ? 'Y-m-d' : 'j M Y'),
                str_replace('Sept ', 'Sep ', $found[0]),
                new \DateTimeZone('UTC'),
            );

            return $day === false ? null : [$day->format('Y-m-d')];
        }

        return match ($field->type) {
            FieldType::DateTime => ($found = $cursor->pattern('\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2})?Z', 'a moment, such as '
                .'2026-11-24T09:40:00Z')) === null ? null : [strtoupper($found[0])],
            FieldType::Reference => ($found = $cursor->pattern('[A-Z]+-\d+', 'the number of a record')) === null ? null
                : [strtoupper($found[0])],
            default => $cursor->label(self::labels($field, $scope)),
        };
    }

    /** @return array<string, string|bool> */
    private static function labels(Field $field, Scope $scope): array
    {
        if ($field->type === FieldType::Tick) {
            return ['ticked' => true, 'not ticked' => false];
        }
        $labels = [];
        foreach ($field->type === FieldType::Person ? $scope->directory->peopleAtWork() : [] as $person) {
            $labels[isset($labels[$person->name]) ? $person->handle : $person->name] = $person->handle;
        }
        foreach ($field->choices as $choice) {
            $labels[$choice->label] = $choice->value;
        }

        return $labels;
    }
}
