<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use SebastianBergmann\Diff\Differ;
use SebastianBergmann\Diff\Output\DiffOnlyOutputBuilder;

/** Two lists of lines side by side: what stayed, what is gone, what is new. By the longest list of lines that both have. */
final class LineDifference
{
    private const MARKS = [Differ::OLD => 'same', Differ::REMOVED => 'gone', Differ::ADDED => 'new'];

    /**
     * @param  list<string>  $was
     * @param  list<string>  $is
     * @return list<array{string, string}> each line with "same", "gone" or "new"
     */
    public static function between(array $was, array $is): array
    {
        $lines = [];
        /** @var list<array{string, int}> $difference of lists of text */
        $difference = (new Differ(new DiffOnlyOutputBuilder))->diffToArray($was, $is);
        foreach ($difference as [$line, $mark]) {
            $lines[] = [$line, self::MARKS[$mark] ?? throw new \LogicException('A line is the same, gone or new.')];
        }

        return $lines;
    }
}
