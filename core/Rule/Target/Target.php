<?php

declare(strict_types=1);

namespace VividLedger\Rule\Target;

use VividLedger\Condition\ChildrenRead;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\RecordType;

/** On which records a line sets fields. */
interface Target
{
    public function type(): RecordType;

    /** Whether it is the record the rule fires for. */
    public function isOwn(): bool;

    /** @return list<Record> as they stand now, kept from being changed by others */
    public function records(ActionContext $performance): array;

    /** @return list<ChildrenRead> the children it goes through to find them */
    public function childrenRead(): array;

    /** Why there are none, for the entry; null when none is nothing to speak of. */
    public function whyNone(): ?string;
}
