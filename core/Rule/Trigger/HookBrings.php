<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;

/** Another system posts to a hook, and what it posted becomes the record or concerns it; of any hook, or of one. */
final readonly class HookBrings extends OwnTrigger
{
    public function __construct(string $type, public string $hook)
    {
        parent::__construct($type);
    }

    public static function kind(): string
    {
        return EventKind::HookBrought->value;
    }

    public static function label(): string
    {
        return EventKind::HookBrought->label();
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->says('{subject} is brought by a hook[, {hook}][, or by hand{byHand}]')
            ->orSaid(
                '{subject} is brought by[ the hook] {hook}',
                '(a|the|any) hook[ {hook}] (brings|delivers|posts|sends) {subject}',
                '[the hook ]{hook} (brings|delivers|posts|sends) {subject}',
                '{subject} (comes|arrives|comes in) (through|by|from|over) (a|the|any) hook[ {hook}]',
                '{subject} is (delivered|posted|sent) by (a|the|any|another|one) (hook|system)[ {hook}]',
            )
            ->slot('subject', new Subject)->slot('byHand', new Always)->slot(HookName::KEY, new HookName);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($context->type->name, $read->text(HookName::KEY));
    }

    public function watch(): Watch
    {
        return new Watch($this->type, events: [EventKind::HookBrought]);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->event?->kind === EventKind::HookBrought && ($this->hook === '' || $change->event->from === $this->hook);
    }

    public function asksNoMore(): bool
    {
        return $this->hook === '';
    }

    public function wanted(): string
    {
        return self::label().($this->hook === '' ? '' : ", “{$this->hook}”");
    }

    public function opening(Proposal $proposal): Opening
    {
        return $proposal->opening(OpeningKind::Hook, from: $this->hook);
    }
}
