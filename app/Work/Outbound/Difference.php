<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use VividLedger\Record\Record;

/** Something on which two systems are not in step. */
final readonly class Difference
{
    /**
     * @param  string  $kind  missing_there, missing_here, or differs
     * @param  ?Record  $record  ours; null where there is none
     * @param  array<string, array{string, string}>  $fields  ours and theirs, by label
     */
    public function __construct(public string $kind, public string $number, public ?Record $record, public array $fields)
    {
    }
}
