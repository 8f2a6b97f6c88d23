<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Rule\Reading\Context;
use VividLedger\Rule\Reading\Edit;
use VividLedger\Rule\Reading\Node;
use VividLedger\Rule\Reading\WordRole;
use VividLedger\Schema\RecordType;

/** At every change that the trigger accepts and the conditions allow. */
final readonly class EveryTime implements RepeatGuard
{
    use Forgetful;

    public static function kind(): string
    {
        return 'every_time';
    }

    public static function label(RecordType $type): string
    {
        return 'every time';
    }

    public static function read(Context $context, Node $node): self
    {
        $context->word(self::label($context->type), WordRole::Value, $node->at, Edit::Guard);

        return new self;
    }

    public function wording(): string
    {
        return 'every time';
    }

    public function wantsTurn(): bool
    {
        return false;
    }
}
