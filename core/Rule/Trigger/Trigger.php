<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\Change;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Node;

/** What makes a rule look at a change. Each trigger is one file with its meaning, its wording and its checks. */
interface Trigger
{
    public static function kind(): string;

    /** As offered: "is created or changed". */
    public static function label(): string;

    /** Reads it from a rule file and words it; null when unfinished. */
    public static function read(Context $context, Node $node): ?self;

    public function accepts(Change $change): bool;

    public function onCreation(): bool;

    /** @return ?list<string> the fields whose change matters; null for every field, an empty list for none */
    public function onChangeOf(): ?array;
}
