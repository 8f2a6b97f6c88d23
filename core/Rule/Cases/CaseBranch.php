<?php

declare(strict_types=1);

namespace VividLedger\Rule\Cases;

use VividLedger\Condition\Condition;
use VividLedger\Rule\Line\Placed;

/** One case: what has to hold, and the lines that are then done. */
final readonly class CaseBranch
{
    /**
     * @param  int  $place  of its heading in the page's file, from 0
     * @param  ?Condition  $condition  null where nothing has to hold
     * @param  string  $said  the heading as it reads
     * @param  list<Placed>  $lines  in the order of the page; none where nothing is to be done
     */
    public function __construct(
        public int $place,
        public ?Condition $condition,
        public string $said,
        public array $lines,
    ) {
    }
}
