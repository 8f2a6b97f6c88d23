<?php

declare(strict_types=1);

namespace VividLedger\Listing;

use VividLedger\Schema\Field;

/** A way to look at the records of a type: which columns, sorted and grouped by what, laid out how. What it narrows by is a condition. */
final readonly class ListView
{
    /**
     * @param  list<Column>  $columns
     * @param  list<Sort>  $sorts  the first counts most
     * @param  ?Column  $group  what rows are grouped by
     * @param  list<Field>  $sums  number fields that are added up for each group
     * @param  list<string>  $gone  names that mean nothing (any more), and were left out
     */
    public function __construct(
        public array $columns,
        public array $sorts,
        public ?Column $group,
        public array $sums,
        public Layout $layout,
        public array $gone,
    ) {
    }
}
