<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Message\Channel;

/** Something that happened on the way of a slip, as data. */
final readonly class SlipEvent
{
    /**
     * @param  string  $to  whom it is about
     * @param  string  $other  who was asked before them, when it was passed on
     * @param  ?SlipStatus  $status  with which it ended
     */
    public function __construct(
        public SlipEventKind $kind,
        public string $to = '',
        public string $other = '',
        public ?Channel $channel = null,
        public ?SlipStatus $status = null,
        public string $path = '',
    ) {
    }
}
