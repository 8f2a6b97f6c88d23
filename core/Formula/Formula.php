<?php

declare(strict_types=1);

namespace VividLedger\Formula;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Closure;
use VividLedger\Facts\Facts;
use VividLedger\Facts\View;
use VividLedger\Record\Fold;
use VividLedger\Record\InvalidValue;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/**
 * A formula over the fields of a record. Arithmetic is exact; a quotient keeps ten digits after the point. An empty value
 * makes arithmetic empty, and a comparison with it false; division by zero is empty and noted.
 */
final class Formula
{
    private const QUOTIENT_DIGITS = 10;

    /** What went wrong in the last evaluation; null when nothing did. */
    public ?string $trouble = null;

    private function __construct(
        public readonly string $text,
        public readonly Term $term,
        private readonly \DateTimeZone $zone,
    ) {
    }

    /** @throws FormulaError */
    public static function of(string $text, Schema $schema, RecordType $type, \DateTimeZone $zone): self
    {
        return new self($text, FormulaParser::parse($text, $schema, $type), $zone);
    }

    public function holds(View $view): bool
    {
        $this->trouble = null;

        return $this->eval($this->term, $view->value(...), $view->facts) === true;
    }

    /** Whether it gives what a field keeps. */
    public function fits(Field $field): bool
    {
        $type = $this->term->type;

        return $type === FormulaType::of($field->type) && ! $field->type->isSet()
            && ($type !== FormulaType::Named || $this->alike($this->term, $field))
            && ($type !== FormulaType::Text || $field->type === FieldType::Text || $field->type === FieldType::LongText);
    }

    /**
     * The value for a field.
     *
     * @throws InvalidValue when it has none that the field takes
     */
    public function value(View $view, Field $field): string|int|bool|null
    {
        return $this->kept($view->value(...), $view->facts, $field);
    }

    /**
     * The same over nothing but the values of one record.
     *
     * @param  array<string, string|int|bool|null>  $values
     *
     * @throws InvalidValue
     */
    public function ofValues(array $values, Field $field): string|int|bool|null
    {
        return $this->kept(static fn (Path $path): string|int|bool|null => $values[$path->field->name] ?? null, null, $field);
    }

    /** @param  Closure(Path): (string|int|bool|null)  $read */
    private function kept(Closure $read, ?Facts $facts, Field $field): string|int|bool|null
    {
        $value = $this->begin()->eval($this->term, $read, $facts);
        if ($value === null && $this->trouble !== null) {
            throw new InvalidValue('no_value', "{$field->label}: {$this->trouble}.");
        }
        if ($value instanceof BigDecimal) {
            $value = (string) $value->toScale($field->scale, RoundingMode::HALF_UP);
        }

        return \VividLedger\Record\Value::of($field, $value);
    }

    private function begin(): self
    {
        $this->trouble = null;

        return $this;
    }

    private function alike(Term $term, Field $field): bool
    {
        return match ($term->op) {
            'if' => $this->alike($term->parts[1], $field) && $this->alike($term->parts[2], $field),
            'field' => $term->path?->field->type === $field->type && $term->path->field->target === $field->target,
            default => $term->type === FormulaType::Nothing,
        };
    }

    /** @param  Closure(Path): (string|int|bool|null)  $read */
    private function eval(Term $term, Closure $read, ?Facts $facts): BigDecimal|string|int|bool|null
    {
        switch ($term->op) {
            case 'value':
                return $term->type === FormulaType::Number ? BigDecimal::of((string) $term->value) : $term->value;
            case 'field':
                return $this->read($term, $read);
            case 'and':
                return $this->eval($term->parts[0], $read, $facts) === true && $this->eval($term->parts[1], $read, $facts) === true;
            case 'or':
                return $this->eval($term->parts[0], $read, $facts) === true || $this->eval($term->parts[1], $read, $facts) === true;
            case 'not':
                return $this->eval($term->parts[0], $read, $facts) !== true;
            case 'if':
                return $this->eval(
                    $term->parts[0],
                    $read,
                    $facts,
                ) === true ? $this->eval($term->parts[1], $read, $facts) : $this->eval($term->parts[2], $read, $facts);
            case 'today':
                return $facts?->now()->setTimezone($this->zone)->format('Y-m-d');
        }
        $values = array_map(fn (Term $part): BigDecimal|string|int|bool|null => $this->eval($part, $read, $facts), $term->parts);
        if ($term->op === 'empty') {
            return $values[0] === null;
        }
        if ($term->op === '~') {
            return self::text($values[0]).self::text($values[1]);
        }
        if (in_array(null, $values, true)) {
            return $term->type === FormulaType::Truth ? false : null;
        }

        return $term->type === FormulaType::Truth ? $this->compare($term, $values[0], $values[1]) : $this->calculate($term->op, $values);
    }

    /** @param  Closure(Path): (string|int|bool|null)  $read */
    private function read(Term $term, Closure $read): BigDecimal|string|int|bool|null
    {
        $value = $term->path === null ? null : $read($term->path);

        return match ($term->type) {
            FormulaType::Number => is_string($value) ? BigDecimal::of($value) : null,
            FormulaType::Truth => $value === true,
            default => $value,
        };
    }

    private function compare(Term $term, BigDecimal|string|int|bool|null $left, BigDecimal|string|int|bool|null $right): bool
    {
        $order = match (true) {
            $left instanceof BigDecimal && $right instanceof BigDecimal => $left->compareTo($right),
            $term->parts[0]->type === FormulaType::Text => strcmp(Fold::text(self::text($left)), Fold::text(self::text($right))),
            is_bool($left) || is_int($left) => $left <=> $right,
            default => strcmp(self::text($left), self::text($right)),
        };

        return match ($term->op) {
            '<' => $order < 0,
            '<=' => $order <= 0,
            '>' => $order > 0,
            '>=' => $order >= 0,
            default => $order === 0,
        };
    }

    /** @param  list<BigDecimal|string|int|bool|null>  $values none of them null */
    private function calculate(string $op, array $values): ?BigDecimal
    {
        if ($op === 'length') {
            return BigDecimal::of(mb_strlen(self::text($values[0])));
        }
        if ($op === 'year' || $op === 'month') {
            return BigDecimal::of((int) substr(self::text($values[0]), $op === 'year' ? 0 : 5, $op === 'year' ? 4 : 2));
        }
        if ($op === 'days') {
            [$from, $to] = array_map(
                static fn (BigDecimal|string|int|bool|null $date): \DateTimeImmutable => new \DateTimeImmutable(
                    self::text($date).'T00:00:00Z',
                ),
                $values,
            );

            return BigDecimal::of(intdiv($to->getTimestamp() - $from->getTimestamp(), 86400));
        }
        $a = BigDecimal::of(self::text($values[0]));
        $b = BigDecimal::of(self::text($values[1] ?? '0'));
        if ($op === '/' && $b->isZero()) {
            $this->trouble = 'division by zero';

            return null;
        }

        return match ($op) {
            '+' => $a->plus($b),
            '-' => $a->minus($b),
            '*' => $a->multipliedBy($b),
            '/' => $a->dividedBy($b, self::QUOTIENT_DIGITS, RoundingMode::HALF_UP),
            'abs' => $a->abs(),
            'least' => $a->isLessThan($b) ? $a : $b,
            'most' => $a->isGreaterThan($b) ? $a : $b,
            'round' => $a->toScale($b->toInt(), RoundingMode::HALF_UP),
            default => throw new \LogicException("A formula has no {$op}."),
        };
    }

    private static function text(BigDecimal|string|int|bool|null $value): string
    {
        return (string) $value;
    }
}
