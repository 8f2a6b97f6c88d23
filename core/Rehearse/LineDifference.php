<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

/** Two lists of lines side by side: what stayed, what is gone, what is new. By the longest list of lines that both have. */
final class LineDifference
{
    /**
     * @param  list<string>  $was
     * @param  list<string>  $is
     * @return list<array{string, string}> each line with "same", "gone" or "new"
     */
    public static function between(array $was, array $is): array
    {
        $common = array_fill(0, count($was) + 1, array_fill(0, count($is) + 1, 0));
        for ($one = count($was) - 1; $one >= 0; $one--) {
            for ($other = count($is) - 1; $other >= 0; $other--) {
                $common[$one][$other] = $was[$one] === $is[$other] ? $common[$one + 1][$other + 1] + 1 : max(
                    $common[$one + 1][$other],
                    $common[$one][$other + 1],
                );
            }
        }
        $lines = [];
        [$one, $other] = [0, 0];
        while ($one < count($was) || $other < count($is)) {
            if ($one < count($was) && $other < count($is) && $was[$one] === $is[$other]) {
                $lines[] = [$was[$one++], 'same'];
                $other++;
            } elseif ($one < count($was) && ($other === count($is) || $common[$one + 1][$other] >= $common[$one][$other + 1])) {
                $lines[] = [$was[$one++], 'gone'];
            } else {
                $lines[] = [$is[$other++], 'new'];
            }
        }

        return $lines;
    }
}
