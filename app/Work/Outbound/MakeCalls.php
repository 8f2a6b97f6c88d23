<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use App\Store\Setup\Company;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Makes the calls that wait. Each is leased by itself, so that any number of these may run. */
final class MakeCalls implements ShouldQueue
{
    use Queueable;

    private const AT_ONCE = 100;

    public function __construct()
    {
        $this->onQueue('calls');
    }

    public function handle(CallDispatcher $caller, Company $company): void
    {
        if ($company->isClockHeld()) {
            // They leave at the moment at which they are due, by whoever turns the clock.
            return;
        }
        if ($caller->work(self::AT_ONCE) > 0) {
            self::dispatch();
        }
    }
}
