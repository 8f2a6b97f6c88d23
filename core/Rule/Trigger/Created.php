<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Engine\Facts;
use VividLedger\Record\Change;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;

/** The record did not exist before. */
final readonly class Created extends OwnTrigger
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

        return new self($context->type->name);
    }

    public function watch(): Watch
    {
        return new Watch($this->type, created: true);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->before === null;
    }
}
