<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use VividLedger\Record\Members;
use VividLedger\Record\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;

/**
 * Divides the values of a field into regions. Every comparison with a written value is constant between the values that are
 * written, so those values, their next neighbours and one more are enough to stand for all there are.
 */
final class Regions
{
    /** More named members would make too many sets of them. */
    private const MOST_MEMBERS = 6;

    /**
     * @param  list<string|int|bool>  $written  at which the answers of all that look at the path turn
     * @param  list<string|int|bool|null>  $also  further values to stand for themselves, preferred to others
     * @return ?list<Region> null when there are too many to look at
     */
    public static function of(Path $path, array $written, array $also = []): ?array
    {
        $field = $path->field;
        $values = match (true) {
            $field->type === FieldType::Tick => $path->hops === [] ? [true, false] : [true, false, null],
            $field->type === FieldType::Choice => [
                ...array_map(static fn ($choice): string => $choice->value, $field->choices), ...$written, null,
            ],
            $field->type->isSet() => self::sets($field, $written),
            $field->type->isDecimal() => self::amounts($field, $written),
            $field->type->isMoment() => self::moments($field, $written),
            $field->type->isText() => [...$written, null],
            // Ids begin at 1: nobody and nothing is number 0, which stands for all that are named nowhere.
            default => [...$written, 0, null],
        };
        if ($values === null) {
            return null;
        }
        $regions = [];
        foreach ([...$also, ...$values] as $value) {
            $regions[serialize($value)] ??= new Region($value);
        }
        if ($field->type->isText()) {
            $regions['other'] = new Region(self::anyText($field), true);
        }

        return array_values($regions);
    }

    private static function anyText(Field $field): string
    {
        return match ($field->type) {
            FieldType::Email => 'somebody@company.example',
            FieldType::Phone => '+49 30 5550 0199',
            FieldType::Link => 'https://company.example',
            default => 'x',
        };
    }

    /**
     * @param  list<string|int|bool>  $written
     * @return list<?string>
     */
    private static function amounts(Field $field, array $written): array
    {
        $step = BigDecimal::ofUnscaledValue(1, $field->scale);
        $bounds = $field->formula === null ? array_filter(
            [$field->min, $field->max],
            static fn (?string $bound): bool => $bound !== null,
        ) : [];
        $values = [];
        foreach ([...$written, ...$bounds, '0'] as $at) {
            $at = BigDecimal::of((string) $at);
            foreach ([$at->minus($step), $at, $at->plus($step)] as $value) {
                $isTooLow = $bounds !== [] && $field->min !== null && $value->isLessThan($field->min);
                $isTooHigh = $bounds !== [] && $field->max !== null && $value->isGreaterThan($field->max);
                if (! $isTooLow && ! $isTooHigh) {
                    $values[] = (string) $value->toScale($field->scale, RoundingMode::DOWN);
                }
            }
        }

        return [...$values, null];
    }

    /**
     * @param  list<string|int|bool>  $written
     * @return list<?string>
     */
    private static function moments(Field $field, array $written): array
    {
        $isDay = $field->type === FieldType::Date;
        $values = [];
        foreach ([...$written, ...($written === [] ? [$isDay ? '2026-01-01' : '2026-01-01T00:00:00Z'] : [])] as $at) {
            $moment = new \DateTimeImmutable($isDay ? "{$at}T00:00:00Z" : (string) $at);
            foreach ($isDay ? ['-1 day', '+0 days', '+1 day'] : ['-1 second', '+0 seconds', '+1 second'] as $step) {
                $value = $moment->modify($step);
                $values[] = $isDay ? $value->format('Y-m-d') : Value::instantText($value);
            }
        }

        return [...$values, null];
    }

    /**
     * @param  list<string|int|bool>  $written
     * @return ?list<?string>
     */
    private static function sets(Field $field, array $written): ?array
    {
        $named = array_values(array_unique(array_map(strval(...), $written)));
        if (count($named) > self::MOST_MEMBERS) {
            return null;
        }
        $offered = array_map(static fn ($choice): string => $choice->value, $field->choices);
        $others = array_values(array_diff($offered, $named));
        $other = $field->type === FieldType::Tags ? ['another tag'] : array_slice($others, 0, 1);
        $values = [];
        for ($set = 0; $set < 2 ** count($named); $set++) {
            $members = array_values(array_filter($named, static fn (int $place): bool => ($set >> $place & 1) === 1, ARRAY_FILTER_USE_KEY));
            $values[] = Members::text($members);
            if ($other !== []) {
                $values[] = Members::text([...$members, ...$other]);
            }
        }

        return $values;
    }
}
