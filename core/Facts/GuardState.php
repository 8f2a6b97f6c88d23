<?php

declare(strict_types=1);

namespace VividLedger\Facts;

/** What a rule has done for one record since its guard was last made ready again. */
final readonly class GuardState
{
    /**
     * @param  int  $epoch  how often the guard was made ready again
     * @param  int  $count  firings since
     * @param  ?\DateTimeImmutable  $last  the latest of them
     */
    public function __construct(
        public int $epoch = 0,
        public int $count = 0,
        public ?\DateTimeImmutable $last = null,
    ) {
    }
}
