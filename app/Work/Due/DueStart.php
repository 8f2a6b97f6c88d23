<?php

declare(strict_types=1);

namespace App\Work\Due;

use VividLedger\Record\EventKind;

/** A rule starts on a record, because it matched when the rule was put in force or because the timetable came round. */
final readonly class DueStart extends DueRow
{
    /** @param  string  $occasion  names the start among all of its record */
    public function __construct(
        int $id,
        string $type,
        int $record,
        int $entry,
        ?\DateTimeImmutable $due,
        string $said,
        ?int $rule,
        ?int $page,
        public string $occasion,
        public EventKind $event,
    ) {
        parent::__construct($id, $type, $record, $entry, $due, $said, $rule, $page);
    }
}
