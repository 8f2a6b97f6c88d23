<?php

declare(strict_types=1);

namespace VividLedger\Rule\Guard;

use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;

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
