<?php

declare(strict_types=1);

namespace VividLedger\Listing;

/** Finds records by what they are called, for whoever narrows a list by one of them. */
interface RecordNames
{
    /**
     * @param  string  $type  name of the record type
     * @return list<string> numbers of those that are called so, the best first; a few at most
     */
    public function called(string $type, string $name): array;
}
