<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Import\RowResult;
use VividLedger\Rule\Rule;

/** What came of one of many records that were saved together. */
final class SavedRow
{
    /** Number of the entry, once it is written. */
    public ?int $entry = null;

    /**
     * @param  string  $said  why it was refused
     * @param  list<array{at: string, code: string, message: string, ...}>  $problems  at the values that cannot be taken
     * @param  list<Rule>  $fired  the rules that answered it
     */
    private function __construct(
        public readonly RowResult $result,
        public readonly ?int $record,
        public readonly string $said = '',
        public readonly array $problems = [],
        public readonly array $fired = [],
    ) {
    }

    /** @param  list<Rule>  $fired */
    public static function saved(RowResult $result, int $record, array $fired): self
    {
        return new self($result, $record, fired: $fired);
    }

    public static function same(int $record): self
    {
        return new self(RowResult::Same, $record);
    }

    /** @param  list<array{at: string, code: string, message: string, ...}>  $problems */
    public static function refused(?int $record, string $said, array $problems = []): self
    {
        return new self(RowResult::Refused, $record, $said, $problems);
    }
}
