<?php

declare(strict_types=1);

namespace VividLedger\Rule\Target;

use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\RecordType;

/** The record an earlier line made: "the new quote". */
final readonly class MadeRecord implements Target
{
    public function __construct(private string $name, private RecordType $type)
    {
    }

    public function type(): RecordType
    {
        return $this->type;
    }

    public function records(ActionContext $performance): array
    {
        $record = $performance->made[$this->name] ?? null;

        return $record === null ? [] : [$record];
    }

    public function whyNone(): string
    {
        return "the new {$this->type->inSentence()} was not made";
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
