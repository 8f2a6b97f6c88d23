<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Record\Record;

/** What is put together for one person: the records of each section of a list, and the person's open tasks. */
final readonly class Gathered
{
    /**
     * @param  list<list<Record>>  $records  by section; the first is what the timetable puts together
     * @param  list<ListedTask>  $tasks
     */
    public function __construct(
        public array $records,
        public array $tasks = [],
    ) {
    }
}
