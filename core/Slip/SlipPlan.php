<?php

declare(strict_types=1);

namespace VividLedger\Slip;

use VividLedger\Time\Due;

/** What becomes of a slip while nobody answers. */
final readonly class SlipPlan
{
    /** How often one person is reminded. */
    public const MOST_NUDGES = 10;

    /**
     * @param  ?Due  $remindEvery  after it was sent, and again
     * @param  ?int  $textsAfter  behind so many letters, text messages are written instead
     * @param  ?Due  $within  how long each has; null for as long as they like
     */
    public function __construct(
        public ?Due $remindEvery = null,
        public ?int $textsAfter = null,
        public ?Due $within = null,
        public ?NextInLine $next = null,
    ) {
    }
}
