<?php

declare(strict_types=1);

namespace App\Work\Timing;

use VividLedger\Record\EventKind;

/** A rule starts on a record, because it matched when the rule was put in force or because the timetable came round. */
final readonly class DueStart extends DueRow
{
    /** Names the start among all of its record. */
    public string $occasion;

    protected function __construct(\stdClass $row, public EventKind $event)
    {
        parent::__construct($row);
        $this->occasion = (string) $row->occasion;
    }
}
