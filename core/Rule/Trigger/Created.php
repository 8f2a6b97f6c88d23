<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Record\Change;
use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\WordRole;

/** The record did not exist before. */
final readonly class Created implements Trigger
{
    public static function kind(): string
    {
        return 'created';
    }

    public static function label(): string
    {
        return 'is created';
    }

    public static function read(Context $context, Node $node): self
    {
        $context->word(self::label(), WordRole::Value, $node->at, Edit::Trigger);

        return new self;
    }

    public function accepts(Change $change): bool
    {
        return $change->before === null;
    }

    public function onCreation(): bool
    {
        return true;
    }

    public function onChangeOf(): array
    {
        return [];
    }
}
