<?php

declare(strict_types=1);

namespace VividLedger\Import;

/** Finds what a cell refers to by the words people call it. */
interface Lookup
{
    /** @return ?int somebody at work, by name, address or handle; null when there is nobody, or more than one */
    public function person(string $said): ?int;

    /** @return list<int> records of a type, by number or title; one, none, or more than can be told apart */
    public function records(string $type, string $said): array;
}
