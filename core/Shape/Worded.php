<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** A slot that is read from a rule file, and worded on the page as it is read. */
interface Worded extends Slot
{
    /**
     * @param  Filled  $around  what stood at the places before it
     * @return mixed what the file means; null when it is unfinished or wrong, and the problem is noted
     */
    public function read(Context $context, Node $node, Filled $around): mixed;

    /** What could be added where the file has nothing, and need not have anything. It is no part of the sentence. */
    public function more(Context $context, Node $node, Filled $around): void;
}
