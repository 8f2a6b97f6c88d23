<?php

declare(strict_types=1);

namespace VividLedger\House;

/** What people and records are called. */
interface Names
{
    public function person(int $id): ?Person;

    /** What a record is called; null when there is none. */
    public function title(string $type, int $id): ?string;
}
