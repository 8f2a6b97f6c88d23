<?php

declare(strict_types=1);

namespace VividLedger\Rule\Target;

use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;

/** The record a reference leads to: the ticket's customer. */
final readonly class ReferredRecord implements Target
{
    public function __construct(private Path $path, private RecordType $type)
    {
    }

    public function type(): RecordType
    {
        return $this->type;
    }

    public function records(ActionContext $performance): array
    {
        $id = $performance->view()->value($this->path);
        $record = is_int($id) ? $performance->facts->record($this->type->name, $id) : null;
        $current = $record === null ? null : $performance->toChange($record);

        return $current === null ? [] : [$current];
    }

    public function whyNone(): string
    {
        return "{$this->path->label()} is empty";
    }

    public function childrenRead(): array
    {
        return [];
    }

    public function isOwn(): bool
    {
        return false;
    }
}
