<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

use VividLedger\Record\Record;

/** Which records have their new version already: in one decision a record gets one. */
final class VersionBumps
{
    /** @var array<string, true> */
    private array $new = [];

    /** @param  ?Record  $saved  the record whose save is being decided on; it came with its new version */
    public function __construct(private readonly ?Record $saved)
    {
    }

    public function newVersion(Record $record): void
    {
        $this->new["{$record->type}:{$record->id}"] = true;
    }

    public function hasNewVersion(Record $record): bool
    {
        return ($this->saved !== null && $this->saved->id === $record->id && $this->saved->type === $record->type)
            || isset($this->new["{$record->type}:{$record->id}"]);
    }
}
