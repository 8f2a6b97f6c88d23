<?php

declare(strict_types=1);

namespace App\Work\Jobs;

use App\Work\Caller;
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

    public function handle(Caller $caller): void
    {
        if ($caller->work(self::AT_ONCE) > 0) {
            self::dispatch();
        }
    }
}
