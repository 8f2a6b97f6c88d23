<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Record;
use VividLedger\Schema\Path;

/** A record together with what can be reached from it. */
final readonly class View
{
    public function __construct(
        public Record $record,
        public Facts $facts,
    ) {
    }

    /** The value at the end of a path; null when it, or a record on the way, is empty. */
    public function value(Path $path): string|int|bool|null
    {
        $record = $this->record;
        foreach ($path->hops as $hop) {
            $id = $record->values[$hop->name] ?? null;
            $record = is_int($id) && $hop->target !== null ? $this->facts->record($hop->target, $id) : null;
            if ($record === null) {
                return null;
            }
        }

        return $record->values[$path->field->name] ?? null;
    }
}
