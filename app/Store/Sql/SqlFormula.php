<?php

declare(strict_types=1);

namespace App\Store\Sql;

use VividLedger\Formula\FormulaType;
use VividLedger\Formula\Term;

/** Writes a formula as SQL for MariaDB, meaning what the core computes. */
final readonly class SqlFormula
{
    public function __construct(private SqlQueryWriter $writer)
    {
    }

    public function write(Term $term): Sql
    {
        $parts = array_map($this->write(...), $term->parts);
        $text = static fn (int $index): string => $parts[$index]->text;
        $bindings = array_merge([], ...array_map(static fn (Sql $part): array => $part->bindings, $parts));
        $isText = ($term->parts[0]->type ?? null) === FormulaType::Text;

        return match ($term->op) {
            'value' => $this->value($term),
            'field' => $this->field($term),
            'today' => new Sql('?', [$this->writer->today()]),
            'empty' => new Sql("({$text(0)} IS NULL)", $bindings),
            '+', '-', '*' => new Sql("({$text(0)} {$term->op} {$text(1)})", $bindings),
            // A quotient keeps ten digits; the dividend is widened first, because SQL adds only four to what it has.
            '/' => new Sql("ROUND(CAST({$text(0)} AS DECIMAL(50,16)) / {$text(1)}, 10)", $bindings),
            '~' => new Sql("CONCAT(COALESCE({$text(0)}, ''), COALESCE({$text(1)}, ''))", $bindings),
            'and', 'or' => new Sql("({$text(0)} ".strtoupper($term->op)." {$text(1)})", $bindings),
            'not' => new Sql("(NOT COALESCE({$text(0)}, FALSE))", $bindings),
            'if' => new Sql("(CASE WHEN {$text(0)} THEN {$text(1)} ELSE {$text(2)} END)", $bindings),
            'days' => new Sql("DATEDIFF({$text(1)}, {$text(0)})", [...$parts[1]->bindings, ...$parts[0]->bindings]),
            'year', 'month', 'abs' => new Sql(strtoupper($term->op)."({$text(0)})", $bindings),
            'round' => new Sql("ROUND({$text(0)}, {$text(1)})", $bindings),
            'least' => new Sql("LEAST({$text(0)}, {$text(1)})", $bindings),
            'most' => new Sql("GREATEST({$text(0)}, {$text(1)})", $bindings),
            'length' => new Sql("CHAR_LENGTH({$text(0)})", $bindings),
            default => new Sql(
                'COALESCE('.($isText ? "{$this->folded($text(0))} = {$this->folded($text(1))}"
                    : "{$text(0)} ".($term->op === '==' ? '=' : $term->op)." {$text(1)}").', FALSE)',
                $bindings,
            ),
        };
    }

    private function folded(string $text): string
    {
        return "LOWER({$text}) COLLATE utf8mb4_nopad_bin";
    }

    private function value(Term $term): Sql
    {
        return match (true) {
            $term->value === null => new Sql('NULL'),
            is_bool($term->value) => new Sql($term->value ? 'TRUE' : 'FALSE'),
            // A number is written out, because a bound text would make SQL reckon in floating point.
            $term->type === FormulaType::Number => new Sql(preg_match('/^-?\d+(\.\d+)?$/', $term->value) === 1 ? $term->value : '0'),
            $term->type === FormulaType::Text => new Sql('CONVERT(? USING utf8mb4)', [$term->value]),
            default => new Sql('?', [$term->value]),
        };
    }

    private function field(Term $term): Sql
    {
        if ($term->path === null) {
            return new Sql('NULL');
        }
        $column = $this->writer->column($term->path);

        return new Sql($term->type === FormulaType::Truth ? "COALESCE({$column->text}, FALSE)" : $column->text, $column->bindings);
    }
}
