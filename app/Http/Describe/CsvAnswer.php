<?php

declare(strict_types=1);

namespace App\Http\Describe;

use Symfony\Component\HttpFoundation\StreamedResponse;

/** A CSV file to keep (RFC 4180, UTF-8), sent as it is read: it never stands whole in memory. */
final class CsvAnswer
{
    /**
     * @param  string  $name  of the file, without its ending
     * @param  \Closure(): iterable<string>  $lines  each with its line end
     */
    public static function of(string $name, \Closure $lines): StreamedResponse
    {
        return new StreamedResponse(static function () use ($lines): void {
            set_time_limit(0);
            // So that table programs know the encoding.
            echo "\u{FEFF}";
            foreach ($lines() as $line) {
                echo $line;
            }
        }, 200, [
            'Content-Type' => 'text/csv; charset=utf-8', 'Content-Disposition' => "attachment; filename=\"{$name}.csv\"",
            'Cache-Control' => 'private, no-store', 'X-Content-Type-Options' => 'nosniff',
        ]);
    }
}
