<?php

declare(strict_types=1);

namespace App\StandIn;

/** The page of the back office: its books, what came lately, and how it is to behave. */
final class BackOfficePage
{
    private const STYLE = 'body{font:15px/1.5 sans-serif;max-width:860px;margin:24px auto;padding:0 20px;color:#1f2a24;background:#f3f6f1}'
        .'h1{font-size:22px}h2{font-size:16px;margin-top:28px}table{width:100%;border-collapse:collapse;background:#fff}'
        .'th,td{text-align:left;padding:6px 10px;border-bottom:1px solid #dbe3d8}button{padding:6px 12px;margin-right:6px}'
        .'button[disabled]{font-weight:bold;color:#14532d}p{color:#4b5a50}';

    /**
     * @param  array{
     *     customers: array<string, array<string, string>>, invoices: list<array<string, string>>,
     *     log: list<array{string, string, int}>, mode: string, keys: array<string, array{int, array<array-key, mixed>}>,
     * }  $books
     */
    public static function of(array $books): string
    {
        $buttons = '';
        foreach (BackOffice::MODES as $mode => $said) {
            $is = $mode === $books['mode'] ? ' disabled' : '';
            $buttons .= "<button name=\"mode\" value=\"{$mode}\"{$is}>{$said}</button>";
        }
        $customers = self::table(['Number', 'Name', 'Tax number', 'Debtor'], array_map(
            static fn (array $one): array => [$one['number'], $one['name'], $one['tax_number'], $one['debtor']],
            array_reverse(array_values($books['customers'])),
        ));
        $invoices = self::table(['Number', 'Customer', 'Amount'], array_map(array_values(...), array_reverse($books['invoices'])));
        $log = self::table(['At', 'What', 'Answer'], array_map(
            static fn (array $one): array => [$one[0], $one[1], (string) $one[2]],
            $books['log'],
        ));

        return '<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">'
            .'<title>Back office</title><style>'.self::STYLE.'</style></head><body><h1>Back office</h1>'
            .'<p>A stand-in for an accounting system. It works as it is told here:</p>'
            ."<form method=\"post\" action=\"/mode\">{$buttons}</form>"
            .'<h2>Customers ('.count($books['customers']).')</h2>'.$customers
            .'<h2>Invoices ('.count($books['invoices']).')</h2>'.$invoices.'<h2>Lately</h2>'.$log.'</body></html>';
    }

    /**
     * @param  list<string>  $heads
     * @param  list<list<string>>  $rows
     */
    private static function table(array $heads, array $rows): string
    {
        if ($rows === []) {
            return '<p>Nothing yet.</p>';
        }
        $cells = static fn (array $row, string $tag): string => '<tr>'.implode('', array_map(
            static fn (string $cell): string => "<{$tag}>".htmlspecialchars($cell)."</{$tag}>",
            $row,
        )).'</tr>';

        return '<table>'.$cells($heads, 'th').implode('', array_map(
            static fn (array $row): string => $cells($row, 'td'),
            array_slice($rows, 0, 100),
        )).'</table>';
    }
}
