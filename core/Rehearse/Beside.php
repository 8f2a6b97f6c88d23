<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Record\Record;
use VividLedger\Rule\Line\ListedTask;

/** What may stand on a rehearsed list beside the rehearsed record, whoever's it is. */
final readonly class Beside
{
    /**
     * @param  array<int, list<list<Record>>>  $records  by place of the line, then by section of its list
     * @param  list<ListedTask>  $tasks
     */
    public function __construct(
        public array $records = [],
        public array $tasks = [],
    ) {
    }
}
