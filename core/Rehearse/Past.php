<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Facts\Facts;

/** The recorded history, record by record. */
interface Past
{
    /** @return iterable<int, list<PastChange>> all that happened to each record of a type, in order, by the record's id */
    public function ofType(string $type): iterable;

    /** The facts as they stood just after an entry. */
    public function after(int $entry, \DateTimeImmutable $at): Facts;
}
