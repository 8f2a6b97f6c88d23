<?php

declare(strict_types=1);

namespace VividLedger\Engine;

use VividLedger\Record\Record;

/** Which records have their new version already: in one decision a record gets one. */
final class Marks
{
    /** @var array<string, true> */
    private array $new = [];

    public function newVersion(Record $record): void
    {
        $this->new["{$record->type}:{$record->id}"] = true;
    }

    public function hasNewVersion(Record $record): bool
    {
        return isset($this->new["{$record->type}:{$record->id}"]);
    }
}
