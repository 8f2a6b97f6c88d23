<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Engine\Facts;
use VividLedger\Record\Change;
use VividLedger\Shape\Context;
use VividLedger\Shape\Edit;
use VividLedger\Shape\Node;
use VividLedger\Shape\WordRole;

/** An existing record changed: in any field, or in one of the named fields, and of one field from and to certain values. */
final readonly class Changed extends OwnTrigger
{
    public function __construct(string $type, public ChangedFields $fields)
    {
        parent::__construct($type);
    }

    public static function kind(): string
    {
        return 'changed';
    }

    public static function label(): string
    {
        return 'is changed';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->word(self::label(), WordRole::Value, $node->at, Edit::Trigger);
        $fields = ChangedFields::read($context, $node, $context->type);

        return $fields === null ? null : new self($context->type->name, $fields);
    }

    public function watch(): Watch
    {
        return new Watch($this->type, fields: $this->fields->names);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->before !== null && $change->after !== null && $change->event === null && $this->fields->changedIn($change);
    }

    public function asksNoMore(): bool
    {
        return ! $this->fields->asksValues();
    }

    public function wanted(): string
    {
        return self::label().$this->fields->wording();
    }
}
