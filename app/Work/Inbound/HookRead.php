<?php

declare(strict_types=1);

namespace App\Work\Inbound;

use VividLedger\Record\Record;

/** What arrived at a hook, as it was understood. */
final readonly class HookRead
{
    /** @param  array<string, mixed>  $values  raw, by field name; a save checks them */
    public function __construct(
        public ?Record $record,
        public array $values,
    ) {
    }
}
