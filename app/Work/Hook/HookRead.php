<?php

declare(strict_types=1);

namespace App\Work\Hook;

use VividLedger\Record\Record;

/** What arrived at a hook, as it was understood. */
final readonly class HookRead
{
    /** @param  array<string, string|int|bool|null>  $values  by field name, as they would be kept; of a record only what would change */
    public function __construct(
        public ?Record $record,
        public array $values,
    ) {
    }
}
