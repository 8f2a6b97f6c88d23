<?php

declare(strict_types=1);

namespace VividLedger\Shape\Slot;

use Closure;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordedAs;

/** A place that need not be there, and can be added by a word of its own: "+ within". */
final readonly class Addable extends WordedAs
{
    /** @param  ?Closure(Filled): bool  $when  whether it makes sense, by what stood before it; null for always */
    public function __construct(private Worded $slot, private string $more, private Editor $editor, private ?Closure $when = null)
    {
    }

    public function read(Context $context, Node $node, Filled $around): mixed
    {
        return $this->slot->read($context, $node, $around);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($this->when === null || ($this->when)($around)) {
            $context->more($this->more, $node->at, $this->editor);
        }
    }

    protected function slot(): Worded
    {
        return $this->slot;
    }
}
