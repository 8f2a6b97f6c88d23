<?php

declare(strict_types=1);

namespace VividLedger\Record;

use Brick\Math\BigDecimal;
use Brick\Math\Exception\MathException;
use Brick\Math\RoundingMode;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Time\OutOfTime;
use VividLedger\Words\Words;

/** Turns what came from outside into the one shape the core keeps for each field type, or says why it cannot. */
final class Value
{
    private const MAX_WHOLE_DIGITS = 15;

    private const LONGEST_TAG = 40;

    /**
     * @return string|int|bool|null null for an empty value; whether a field may be empty is not judged here
     *
     * @throws InvalidValue
     */
    public static function of(Field $field, mixed $raw): string|int|bool|null
    {
        if ($field->type === FieldType::Tick) {
            return self::tick($field, $raw);
        }
        if (is_string($raw)) {
            $raw = $field->type === FieldType::LongText ? rtrim($raw) : trim($raw);
        }
        if ($raw === null || $raw === '' || $raw === []) {
            return null;
        }

        return match ($field->type) {
            FieldType::Text, FieldType::LongText, FieldType::Email, FieldType::Phone, FieldType::Link => self::text($field, $raw),
            FieldType::Number, FieldType::Money, FieldType::Percent => self::decimal($field, $raw),
            FieldType::Date => self::date($field, $raw),
            FieldType::DateTime => self::instant($field, $raw),
            FieldType::Choice => self::choice($field, $raw),
            FieldType::Choices => self::choices($field, $raw),
            FieldType::Tags => self::tags($field, $raw),
            FieldType::Person, FieldType::Reference => self::id($field, $raw),
        };
    }

    public static function instantText(\DateTimeImmutable $instant): string
    {
        return $instant->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z');
    }

    private static function tick(Field $field, mixed $raw): bool
    {
        return match ($raw) {
            true, 1, '1', 'true' => true,
            false, 0, '0', 'false', null, '' => false,
            default => throw new InvalidValue(
                'wrong_type',
                Words::say('{field} is a tick box: it is either ticked or not.', field: $field->label),
            ),
        };
    }

    private static function text(Field $field, mixed $raw): string
    {
        if (! is_string($raw) || ! mb_check_encoding($raw, 'UTF-8')) {
            throw new InvalidValue('wrong_type', Words::say('{field} takes text.', field: $field->label));
        }
        if (mb_strlen($raw) > $field->maxLength) {
            throw new InvalidValue(
                'too_long',
                Words::say(
                    '{field} takes at most {most} characters; this has {raw}.',
                    field: $field->label,
                    most: $field->maxLength,
                    raw: mb_strlen($raw),
                ),
            );
        }
        if ($field->type !== FieldType::LongText && preg_match('/[\x00-\x1F\x7F]/', $raw) === 1) {
            throw new InvalidValue('wrong_type', Words::say('{field} takes one line without control characters.', field: $field->label));
        }
        $fits = match ($field->type) {
            FieldType::Email => filter_var($raw, FILTER_VALIDATE_EMAIL) !== false,
            FieldType::Link => preg_match('#^https?://[^\s]+$#i', $raw) === 1,
            FieldType::Phone => preg_match('#^\+?[0-9 ()/.-]{4,40}$#', $raw) === 1,
            default => true,
        };
        if (! $fits) {
            throw new InvalidValue('wrong_type', match ($field->type) {
                FieldType::Email => Words::say('{field} takes an e-mail address such as marit@hotel.example.', field: $field->label),
                FieldType::Link => Words::say('{field} takes a web address that starts with https://.', field: $field->label),
                default => Words::say('{field} takes a phone number such as +44 20 5550 0142.', field: $field->label),
            });
        }

        return $raw;
    }

    private static function decimal(Field $field, mixed $raw): string
    {
        if (! is_string($raw) && ! is_int($raw) && ! is_float($raw)) {
            throw new InvalidValue('wrong_type', Words::say('{field} takes a number.', field: $field->label));
        }
        try {
            // Of a float only its shortest decimal text is meant, never its binary neighbour.
            $number = BigDecimal::of(is_float($raw) ? json_encode($raw, JSON_THROW_ON_ERROR) : $raw);
            $fixed = $number->toScale($field->scale, RoundingMode::UNNECESSARY);
        } catch (\Brick\Math\Exception\RoundingNecessaryException) {
            throw new InvalidValue('out_of_range', Words::counted(
                $field->scale,
                '{field} takes at most {count} digit after the point.|{field} takes at most {count} digits after the point.',
                field: $field->label,
            ));
        } catch (MathException|\JsonException) {
            throw new InvalidValue('wrong_type', Words::say('{field} takes a number such as 12.50.', field: $field->label));
        }
        if (strlen(ltrim(explode('.', (string) $fixed)[0], '-')) > self::MAX_WHOLE_DIGITS) {
            throw new InvalidValue(
                'out_of_range',
                Words::say('{field} takes at most {most} digits before the point.', field: $field->label, most: self::MAX_WHOLE_DIGITS),
            );
        }

        foreach (['min' => 1, 'max' => -1] as $bound => $wrong) {
            $limit = $bound === 'min' ? $field->min : $field->max;
            if ($limit !== null && BigDecimal::of($limit)->compareTo($fixed) === $wrong) {
                throw new InvalidValue(
                    'out_of_bounds',
                    $bound === 'min'
                        ? Words::say(
                            '{field} is at least {limit}; this is {given}.',
                            field: $field->label,
                            limit: $limit,
                            given: (string) $fixed,
                        )
                        : Words::say(
                            '{field} is at most {limit}; this is {given}.',
                            field: $field->label,
                            limit: $limit,
                            given: (string) $fixed,
                        ),
                );
            }
        }

        return (string) $fixed;
    }

    private static function date(Field $field, mixed $raw): string
    {
        if (is_string($raw) && preg_match('/^(\d{4})-(\d{2})-(\d{2})$/', $raw, $part) === 1 && $part[1] >= '1000'
            && checkdate((int) $part[2], (int) $part[3], (int) $part[1])) {
            return $raw;
        }
        throw new InvalidValue('wrong_type', Words::say('{field} takes a date that exists, written as 2026-11-24.', field: $field->label));
    }

    private static function instant(Field $field, mixed $raw): string
    {
        $iso = '/^(\d{4}-\d{2}-\d{2})T([01]\d|2[0-3]):([0-5]\d)(:[0-5]\d)?(\.\d+)?(Z|[+-]\d{2}:\d{2})$/';
        if (is_string($raw) && preg_match($iso, $raw, $part) === 1) {
            self::date($field, $part[1]);
            $instant = new \DateTimeImmutable($raw);
            if (! OutOfTime::keeps($instant)) {
                throw new InvalidValue(
                    'out_of_range',
                    Words::say('{field} takes a moment in the years 1000 to 9999.', field: $field->label),
                );
            }

            return self::instantText($instant);
        }
        throw new InvalidValue(
            'wrong_type',
            Words::say('{field} takes a moment with its zone, written as 2026-11-24T09:40:00Z.', field: $field->label),
        );
    }

    private static function choice(Field $field, mixed $raw): string
    {
        if (is_string($raw) && $field->choice($raw) !== null) {
            return $raw;
        }
        $open = array_filter($field->choices, static fn ($choice): bool => ! $choice->isRetired);
        $offered = implode(', ', array_map(static fn ($choice): string => $choice->label, $open));
        throw new InvalidValue(
            'not_offered',
            Words::say(
                '{field} does not offer ‘{raw}’. It offers {offered}.',
                field: $field->label,
                raw: is_scalar($raw) ? (string) $raw : gettype($raw),
                offered: $offered,
            ),
        );
    }

    /** Several choices, as a list or joined by commas; kept in the order they are offered. */
    private static function choices(Field $field, mixed $raw): ?string
    {
        $chosen = [];
        foreach (self::members($field, $raw) as $member) {
            $chosen[] = self::choice($field, $member);
        }

        return Members::text(array_values(array_filter(
            array_map(static fn ($choice): string => $choice->value, $field->choices),
            static fn (string $value): bool => in_array($value, $chosen, true),
        )));
    }

    /** Free words; compared without regard to case, so they are kept in lower case. */
    private static function tags(Field $field, mixed $raw): ?string
    {
        $tags = [];
        foreach (self::members($field, $raw) as $member) {
            $tag = is_string($member) ? Fold::text(trim((string) preg_replace('/\s+/u', ' ', $member))) : '';
            if (! is_string($member) || preg_match('/[\x00-\x1F\x7F,]/', $tag) === 1 || mb_strlen($tag) > self::LONGEST_TAG
                || ! mb_check_encoding($member, 'UTF-8')) {
                throw new InvalidValue(
                    'wrong_type',
                    Words::say(
                        '{field} takes words of at most {most} characters, without commas.',
                        field: $field->label,
                        most: self::LONGEST_TAG,
                    ),
                );
            }
            if ($tag !== '') {
                $tags[] = $tag;
            }
        }
        sort($tags, SORT_STRING);
        $text = Members::text($tags);
        if (mb_strlen((string) $text) > $field->maxLength) {
            throw new InvalidValue('too_long', Words::say('{field} has no room for so many.', field: $field->label));
        }

        return $text;
    }

    /** @return list<mixed> */
    private static function members(Field $field, mixed $raw): array
    {
        return match (true) {
            is_string($raw) => explode(',', $raw),
            is_array($raw) && array_is_list($raw) => $raw,
            default => throw new InvalidValue('wrong_type', Words::say('{field} takes a list.', field: $field->label)),
        };
    }

    private static function id(Field $field, mixed $raw): int
    {
        if (is_int($raw) && $raw > 0) {
            return $raw;
        }
        if (is_string($raw) && preg_match('/^[1-9]\d{0,17}$/', $raw) === 1) {
            return (int) $raw;
        }
        throw new InvalidValue(
            'wrong_type',
            $field->type === FieldType::Person ? Words::say('{field} takes the id of a person.', field: $field->label)
                : Words::say('{field} takes the id of a record.', field: $field->label),
        );
    }
}
