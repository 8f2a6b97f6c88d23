<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Schema\RecordType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Elsewhere;
use VividLedger\Shape\WordedAs;

/** Conditions about another record, which the page shows as rows of their own below the sentence. */
final readonly class ConditionsBelow extends WordedAs
{
    private Elsewhere $slot;

    /**
     * @param  Closure(Scope, array<mixed>): ?RecordType  $type  whose fields they are about, in a text
     * @param  Closure(Filled, Context): RecordType  $read  and where it has been read
     * @param  string  $margin  before the first of them
     * @param  string  $more  what adds them
     */
    public function __construct(Closure $type, private Closure $read, private string $margin, private string $more)
    {
        $this->slot = new Elsewhere(new ConditionSlot, $type);
    }

    public function read(Context $context, Node $node, Filled $around): ?Condition
    {
        if ($node->isMissing()) {
            $this->more($context, $node, $around);

            return null;
        }

        return ConditionReader::read($context->about(($this->read)($around, $context)), $node, $this->margin, 1);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        $context->more($this->more, $node->at, Editor::conditions());
    }

    protected function slot(): Elsewhere
    {
        return $this->slot;
    }
}
