<?php

declare(strict_types=1);

namespace VividLedger\Rule\Recipient;

use VividLedger\Message\Channel;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;

/** To whom a line sends. Each kind is one file. */
interface Recipient
{
    public static function kind(): string;

    /** How it is written, printed and said. */
    public static function shape(): Shape;

    /** Reads it; null with the problem noted. It words nothing by itself. */
    public static function read(Context $context, Node $node): ?self;

    /** @return list<Offer> */
    public static function offers(Context $context): array;

    public function reach(ActionContext $performance, Channel $channel): Reached;
}
