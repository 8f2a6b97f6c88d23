<?php

declare(strict_types=1);

namespace VividLedger\Import;

/** How a table of text is written: in which encoding, and what parts its cells. */
final readonly class FileForm
{
    /** What parts cells, the likeliest first where several would do. */
    private const DELIMITERS = [',', ';', "\t", '|'];

    private const LINES = 20;

    /** So many rows may stand above the names of the columns. */
    private const MOST_ABOVE = 5;

    /**
     * @param  string  $encoding  as iconv names it
     * @param  int  $skips  bytes of a mark at its beginning
     * @param  int  $above  rows that stand above the one with the names of the columns: what parts them, a title
     * @param  bool  $endsWithReturns  whether lines end as they did on old machines, with a carriage return alone
     */
    public function __construct(
        public string $encoding,
        public string $delimiter,
        public int $skips = 0,
        public int $above = 0,
        public bool $endsWithReturns = false,
    ) {
    }

    /**
     * @param  string  $sample  the first bytes of the file, some thousands
     * @return ?self null when it is no text
     */
    public static function of(string $sample): ?self
    {
        [$encoding, $skips] = match (true) {
            str_starts_with($sample, "\xEF\xBB\xBF") => ['UTF-8', 3],
            str_starts_with($sample, "\xFF\xFE") => ['UTF-16LE', 2],
            str_starts_with($sample, "\xFE\xFF") => ['UTF-16BE', 2],
            str_contains($sample, "\0") => [null, 0],
            self::isUtf8($sample) => ['UTF-8', 0],
            // What table programs write that know no better.
            default => ['WINDOWS-1252', 0],
        };
        if ($encoding === null) {
            return null;
        }
        $text = $encoding === 'UTF-8' ? $sample : (string) @iconv($encoding, 'UTF-8//IGNORE', substr($sample, $skips));

        if (preg_match('/[\x01-\x08\x0E-\x1A\x1C-\x1F]/', $text) === 1) {
            return null;
        }
        $endsWithReturns = strlen($encoding) < 7 || $encoding === 'WINDOWS-1252' ? ! str_contains($text, "\n")
            && str_contains($text, "\r") : false;
        [$delimiter, $above] = self::table($endsWithReturns ? strtr($text, "\r", "\n") : $text);

        return new self($encoding, $delimiter, $skips, $above, $endsWithReturns);
    }

    /** A letter may be cut in two where the sample ends. */
    private static function isUtf8(string $sample): bool
    {
        for ($cut = 0; $cut < 4 && $cut < strlen($sample); $cut++) {
            if (mb_check_encoding($cut === 0 ? $sample : substr($sample, 0, -$cut), 'UTF-8')) {
                return true;
            }
        }

        return $sample === '';
    }

    /**
     * The sign that parts the first lines into the same number of cells as the names of the columns, and into more than others do.
     *
     * @return array{string, int} the sign, and how many rows stand above the names of the columns
     */
    private static function table(string $text): array
    {
        // Some table programs write it down.
        if (preg_match('/^\s*"?sep=([,;\t|])"?\s*[\r\n]/i', $text, $said) === 1) {
            return [$said[1], 1];
        }
        $best = [0.0, self::DELIMITERS[0], 0];
        foreach (self::DELIMITERS as $sign) {
            $counts = self::cells($text, $sign);
            // A title is one cell above a table of several.
            $above = 0;
            while ($above < self::MOST_ABOVE && ($counts[$above] ?? 0) === 1 && ($counts[$above + 1] ?? 0) > 0) {
                $above++;
            }
            $rows = array_slice($counts, $above);
            $columns = $rows[0] ?? 1;
            if ($columns <= 1) {
                // It does not part the names of the columns, whatever it does within their cells.
                continue;
            }
            $alike = count(array_filter($rows, static fn (int $count): bool => $count === $columns));
            $score = $alike / count($rows) * 1000 + min($columns, 100) - 500 * ($above > 0 ? 1 : 0);
            if ($score > $best[0]) {
                $best = [$score, $sign, $above];
            }
        }

        return [$best[1], $best[2]];
    }

    /** @return list<int> how many cells each of the first rows has; rows with nothing in them do not count */
    private static function cells(string $text, string $sign): array
    {
        $stream = fopen('php://memory', 'r+');
        if ($stream === false) {
            return [];
        }
        fwrite($stream, $text);
        rewind($stream);
        $counts = [];
        while (count($counts) < self::LINES && ($cells = fgetcsv($stream, 100_000, $sign, '"', '')) !== false) {
            if (trim(implode('', $cells)) !== '') {
                $filled = array_filter($cells, static fn (?string $cell): bool => trim((string) $cell) !== '');
                // What a table program writes behind a title are cells with nothing in them.
                $counts[] = count($filled) === 1 && count($counts) < self::MOST_ABOVE && isset($filled[0]) ? 1 : count($cells);
            }
        }
        fclose($stream);
        // The last line may be cut off.
        if (count($counts) > 2) {
            array_pop($counts);
        }

        return $counts;
    }
}
