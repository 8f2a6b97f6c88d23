<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Record\Record;

/** Records that can be turned to one after another, in an order. */
final readonly class Candidates
{
    /**
     * @param  string  $type  name of their record type
     * @param  ?Test  $where  what they meet; null for all
     * @param  ?string  $by  name of the field by which they stand in order; null for the order in which they were made
     * @param  bool  $down  the highest first; what has no value comes last either way
     * @param  ?int  $mostOpen  so many slips at least may not wait for one of them; null for any number
     */
    public function __construct(
        public string $type,
        public ?Test $where,
        public ?string $by = null,
        public bool $down = false,
        public ?int $mostOpen = null,
    ) {
    }

    /**
     * @param  iterable<Record>  $records  of the type
     * @return list<Record> those that meet the condition, in order
     */
    public function among(iterable $records, Facts $facts): array
    {
        $test = $this->where?->compile();
        $found = [];
        foreach ($records as $record) {
            if ($record->type === $this->type && ($test === null || $test(new View($record, $facts)))) {
                $found[] = $record;
            }
        }
        usort($found, function (Record $one, Record $other): int {
            [$left, $right] = $this->by === null ? [0, 0] : [$one->value($this->by), $other->value($this->by)];
            $empties = ($left === null) <=> ($right === null);
            $order = is_numeric($left) && is_numeric($right) ? (float) $left <=> (float) $right : $left <=> $right;

            return match (true) {
                $empties !== 0 => $empties,
                $left !== null && $order !== 0 => $this->down ? -$order : $order,
                default => $one->id <=> $other->id,
            };
        });

        return $found;
    }
}
