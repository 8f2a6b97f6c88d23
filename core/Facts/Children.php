<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use Closure;
use VividLedger\Record\Record;

/** The records of a type whose reference field names one record, all or those that meet a condition on their own fields. */
final class Children
{
    /** @var ?Closure(View): bool */
    private ?Closure $test = null;

    /**
     * @param  string  $type  name of the record type of the children
     * @param  string  $by  name of their reference field
     */
    public function __construct(
        public readonly string $type,
        public readonly string $by,
        public readonly ?Test $where = null,
    ) {
    }

    public function has(Record $record, int $parent, Facts $facts): bool
    {
        if ($record->type !== $this->type || $record->value($this->by) !== $parent) {
            return false;
        }
        if ($this->where === null) {
            return true;
        }
        $this->test ??= $this->where->compile();

        return ($this->test)(new View($record, $facts));
    }
}
