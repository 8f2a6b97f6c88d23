<?php

declare(strict_types=1);

namespace VividLedger\Condition;

/** A condition made of others: it knows what of them makes it hold. */
interface Parted extends Condition
{
    /** @return list<Condition> */
    public function parts(): array;

    /**
     * What is known of it when so much is known of its parts.
     *
     * @param  list<?bool>  $truths  of the parts, in order; null for one of which nothing is known
     * @return ?bool null while it is open
     */
    public function truth(array $truths): ?bool;
}
