<?php

declare(strict_types=1);

namespace VividLedger\Rule\Target;

use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\RecordType;

/** The record the rule fires on. */
final readonly class ThisRecord implements Target
{
    public function __construct(private RecordType $type)
    {
    }

    public function type(): RecordType
    {
        return $this->type;
    }

    public function records(ActionContext $performance): array
    {
        return [$performance->record];
    }

    public function whyNone(): ?string
    {
        return null;
    }

    public function childrenRead(): array
    {
        return [];
    }

    public function isOwn(): bool
    {
        return true;
    }
}
