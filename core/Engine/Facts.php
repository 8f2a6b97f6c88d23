<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\People\Names;
use VividLedger\People\Person;
use VividLedger\Record\Record;

/**
 * What the engine may ask about the world besides the change itself. Production answers from the database inside the
 * transaction of the save; tests answer from memory.
 */
interface Facts extends Names
{
    /** A related record as it now is; null when there is none. */
    public function record(string $type, int $id): ?Record;

    /** Who stands in when a rule finds nobody; null when the company has named no one. */
    public function fallbackPerson(): ?Person;

    /** Whether a rule has already used a guard key for a record. */
    public function guardHeld(int $ruleId, string $type, int $recordId, string $key): bool;
}
