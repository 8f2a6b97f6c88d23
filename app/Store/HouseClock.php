<?php

declare(strict_types=1);

namespace App\Store;

use App\Store\Setup\Company;
use Closure;
use VividLedger\Time\Clock;

/**
 * The application's clock: the system's time plus what the company's clock is ahead, or the one moment at which it stands for all while
 * it is turned. Everything that asks for now asks here.
 */
final class HouseClock implements Clock
{
    private ?\DateTimeImmutable $held = null;

    public function __construct(private readonly Company $company)
    {
    }

    public function now(): \DateTimeImmutable
    {
        return $this->held ?? $this->company->clock();
    }

    /**
     * Does something all of which happens at one moment: now, as it is at the beginning.
     *
     * @template T
     *
     * @param  Closure(): T  $work
     * @return T
     */
    public function freeze(Closure $work): mixed
    {
        $before = $this->held;
        $this->held = $this->now();
        try {
            return $work();
        } finally {
            $this->held = $before;
        }
    }

    /** Stands still at a moment, for the making of the demo's history and for tests; null lets it run again. */
    public function hold(?\DateTimeImmutable $at): void
    {
        $this->held = $at?->setTimezone(new \DateTimeZone('UTC'));
    }
}
