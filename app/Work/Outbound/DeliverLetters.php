<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use App\Store\Setup\Company;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Delivers what waits in the outbox. Each message is leased by itself, so that any number of these may run. */
final class DeliverLetters implements ShouldQueue
{
    use Queueable;

    private const AT_ONCE = 20;

    public function __construct()
    {
        $this->onQueue('letters');
    }

    public function handle(OutboxRelay $postman, Company $company): void
    {
        if ($company->isClockHeld()) {
            // They leave at the moment at which they are due, by whoever turns the clock.
            return;
        }
        if ($postman->work(self::AT_ONCE) === self::AT_ONCE) {
            self::dispatch();
        }
    }
}
