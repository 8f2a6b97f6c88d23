<?php

declare(strict_types=1);

namespace App\Store;

/** One line of a CSV file (RFC 4180), and what was done to a cell that it harms nobody. */
final class CsvLine
{
    /** What a table program would reckon with: it begins like a formula, also in full width, or like a cell that was kept from it. */
    private const FORMULA = "/^'*[=+\\-@＝＋－＠\\t\\r\\n]/u";

    /** Numbers of telephones and the like begin so too, and reckon with nothing. */
    private const FIGURES = '/^[+-]?[\d .()\/-]*$/';

    /** @param  list<string>  $cells  a text that a table program would take for a formula has a quote before it, and is kept one */
    public static function of(array $cells, string $delimiter = ','): string
    {
        return implode($delimiter, array_map(static function (string $cell) use ($delimiter): string {
            $cell = self::isFormula($cell) ? "'{$cell}" : $cell;

            return strpbrk($cell, "{$delimiter}\"\r\n") === false ? $cell : '"'.str_replace('"', '""', $cell).'"';
        }, $cells))."\r\n";
    }

    /** The text of a cell as it was before it was written so. */
    public static function read(string $cell): string
    {
        return str_starts_with($cell, "'") && self::isFormula(substr($cell, 1)) ? substr($cell, 1) : $cell;
    }

    private static function isFormula(string $cell): bool
    {
        return preg_match(self::FORMULA, $cell) === 1 && preg_match(self::FIGURES, $cell) !== 1;
    }
}
