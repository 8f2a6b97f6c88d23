<?php

declare(strict_types=1);

namespace VividLedger\Import;

/** How a table of text is written: in which encoding, and what parts its cells. */
final readonly class FileForm
{
    /** What parts cells, the likeliest first where several would do. */
    private const DELIMITERS = [',', ';', "\t", '|'];

    private const LINES = 20;

    /**
     * @param  string  $encoding  as iconv names it
     * @param  int  $skips  bytes of a mark at its beginning
     */
    public function __construct(public string $encoding, public string $delimiter, public int $skips = 0)
    {
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

        return preg_match('/[\x01-\x08\x0E-\x1A\x1C-\x1F]/', $text) === 1 ? null : new self($encoding, self::delimiter($text), $skips);
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

    /** The sign that parts the first lines into the same number of cells, and into more than the others do. */
    private static function delimiter(string $text): string
    {
        $best = [0.0, self::DELIMITERS[0]];
        foreach (self::DELIMITERS as $sign) {
            $counts = [];
            $stream = fopen('php://memory', 'r+');
            if ($stream === false) {
                continue;
            }
            fwrite($stream, $text);
            rewind($stream);
            while (count($counts) < self::LINES && ($cells = fgetcsv($stream, 100_000, $sign, '"', '')) !== false) {
                $counts[] = count($cells);
            }
            fclose($stream);
            // The last line may be cut off.
            if (count($counts) > 2) {
                array_pop($counts);
            }
            $most = $counts === [] ? 1 : max($counts);
            $alike = count(array_filter($counts, static fn (int $count): bool => $count === ($counts[0] ?? 0)));
            $score = $most <= 1 ? 0.0 : $alike / count($counts) * 1000 + min($most, 100);
            if ($score > $best[0]) {
                $best = [$score, $sign];
            }
        }

        return $best[1];
    }
}
