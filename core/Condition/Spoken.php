<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Row;
use VividLedger\Shape\Shape;

/** A condition that is no comparison of a field: it has sentences of its own. Each kind is one file. */
interface Spoken extends Condition
{
    /** @return list<Shape> the sentences, each with its name in a rule file */
    public static function shapes(): array;

    /** Reads it and words it in its row; null when unfinished. */
    public static function read(Context $context, Node $node, Row $row): ?Condition;

    /** @return list<Offer> how it is offered among what a condition can look at; none where it makes no sense */
    public static function offers(Context $context, Node $node): array;
}
