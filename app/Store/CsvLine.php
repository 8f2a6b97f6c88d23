<?php

declare(strict_types=1);

namespace App\Store;

/** One line of a CSV file (RFC 4180). */
final class CsvLine
{
    /** @param  list<string>  $cells  a text that a table program would take for a formula is kept one */
    public static function of(array $cells): string
    {
        return implode(',', array_map(static function (string $cell): string {
            $isFormula = preg_match('/^[=+\-@\t\r]/', $cell) === 1 && ! is_numeric($cell);
            $cell = $isFormula ? "'{$cell}" : $cell;

            return strpbrk($cell, ",\"\r\n") === false ? $cell : '"'.str_replace('"', '""', $cell).'"';
        }, $cells))."\r\n";
    }
}
