<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Record\Record;

/** What may be asked about records. */
interface RecordFacts
{
    /** A related record as it is; null when there is none. */
    public function record(string $type, int $id): ?Record;

    /** The same for a line that will change it: nobody else changes it before the decision is written. */
    public function recordToChange(string $type, int $id): ?Record;

    /**
     * Children of a record, by id.
     *
     * @return list<Record> at most so many
     */
    public function children(Children $children, int $parent, int $most): array;

    /** @param  list<int>  $except ids of children that do not count */
    public function total(Total $total, int $parent, array $except): ?string;

    /** The id for a new record; one that is never used leaves a gap. */
    public function freshId(string $type): int;

    /** When what a silence of a record is counted from happened; null when nothing did, or it has been answered since. */
    public function silentSince(Quiet $quiet, string $type, int $id): ?\DateTimeImmutable;

    /** What names that silence among all of the record; null when there is none. */
    public function silenceMark(Quiet $quiet, string $type, int $id): ?int;
}
