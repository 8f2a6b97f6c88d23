<?php

declare(strict_types=1);

namespace VividLedger\Import;

/** How a column writes dates and numbers, found out from what stands in it: nobody is asked whether 3/4 is in March or in April. */
final readonly class Convention
{
    private const NUMERIC_DATE = '#^(\d{1,2})[./-](\d{1,2})[./-](\d{2,4})\b#';

    /**
     * @param  bool  $monthFirst  "4/3/2026" is the third of April
     * @param  bool  $decimalComma  "1.234,50" is more than a thousand
     */
    public function __construct(public bool $monthFirst = false, public bool $decimalComma = false)
    {
    }

    /** @param  list<string>  $cells  some of the column, of as many rows as there are at hand */
    public static function of(array $cells): self
    {
        [$dayFirst, $monthFirst, $comma, $point] = [0, 0, 0, 0];
        foreach ($cells as $cell) {
            if (preg_match(self::NUMERIC_DATE, trim($cell), $part) === 1) {
                $dayFirst += (int) $part[1] > 12 ? 1 : 0;
                $monthFirst += (int) $part[2] > 12 ? 1 : 0;
            }
            $number = preg_replace('/[^\d.,]/', '', $cell) ?? '';
            [$lastComma, $lastPoint] = [strrpos($number, ','), strrpos($number, '.')];
            if ($lastComma !== false && ($lastPoint === false ? strlen($number) - $lastComma !== 4 : $lastComma > $lastPoint)) {
                $comma++;
            } elseif ($lastPoint !== false && ($lastComma === false ? strlen($number) - $lastPoint !== 4 : true)) {
                $point++;
            }
        }

        return new self($monthFirst > $dayFirst, $comma > $point);
    }
}
