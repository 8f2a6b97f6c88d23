<?php

declare(strict_types=1);

namespace VividLedger\Formula;

use VividLedger\Words\Words;

/**
 * How many digits the numbers of a formula can have, before and behind the point. A formula whose numbers could have more than a
 * database keeps exactly (65 in all, 30 behind the point) is refused, so that it means the same wherever it is reckoned.
 */
final readonly class Digits
{
    private const MOST = 65;

    private const MOST_BEHIND = 30;

    /** A dividend keeps so many; a divisor has so many behind the point: then a quotient to ten digits is exact as well. */
    private const DIVIDEND = [34, 16];

    private const DIVISOR_BEHIND = 11;

    private const OF_FIELD = 15;

    private const OF_FUNCTION = 10;

    private const OF_QUOTIENT = 10;

    private function __construct(public int $before, public int $behind)
    {
    }

    /** @throws FormulaError at the first part whose numbers grow too long */
    public static function of(Term $term): self
    {
        $parts = array_map(self::of(...), $term->parts);
        if ($term->type !== FormulaType::Number) {
            return new self(0, 0);
        }
        $digits = match ($term->op) {
            'value' => self::written((string) $term->value),
            'field' => new self(self::OF_FIELD, $term->path->field->scale ?? 0),
            '+', '-' => new self(max($parts[0]->before, $parts[1]->before) + 1, max($parts[0]->behind, $parts[1]->behind)),
            '*' => new self($parts[0]->before + $parts[1]->before, $parts[0]->behind + $parts[1]->behind),
            '/' => self::divided($term, $parts[0], $parts[1]),
            'round' => new self($parts[0]->before + 1, (int) $term->parts[1]->value),
            'if' => self::widest([$parts[1], $parts[2]]),
            'least', 'most', 'abs' => self::widest($parts),
            default => new self(self::OF_FUNCTION, 0),
        };
        if ($digits->before + $digits->behind > self::MOST || $digits->behind > self::MOST_BEHIND) {
            throw self::tooLong($term);
        }

        return $digits;
    }

    /** @param  array<self>  $parts */
    private static function widest(array $parts): self
    {
        $before = $behind = 0;
        foreach ($parts as $part) {
            $before = max($before, $part->before);
            $behind = max($behind, $part->behind);
        }

        return new self($before, $behind);
    }

    private static function written(string $number): self
    {
        [$before, $behind] = explode('.', $number) + [1 => ''];

        return new self(strlen($before), strlen($behind));
    }

    private static function divided(Term $term, self $dividend, self $divisor): self
    {
        if ($dividend->before > self::DIVIDEND[0] || $dividend->behind > self::DIVIDEND[1] || $divisor->behind > self::DIVISOR_BEHIND) {
            throw self::tooLong($term);
        }

        return new self($dividend->before + $divisor->behind, self::OF_QUOTIENT);
    }

    private static function tooLong(Term $term): FormulaError
    {
        return new FormulaError(
            Words::say('This could come to a number with more digits than can be kept. Round a part of it first, as in round(a * b, 2).'),
            $term->position,
        );
    }
}
