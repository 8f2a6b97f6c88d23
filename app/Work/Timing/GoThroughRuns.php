<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Store\Timing\RunStore;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Goes through selections on which rules are run by hand. Each record is answered by itself, so a run cut short goes on where it was. */
final class GoThroughRuns implements ShouldQueue
{
    use Queueable;

    /** Each job begins with what the company keeps by then. */
    private const SECONDS = 3.0;

    public function __construct()
    {
        $this->onQueue('runs');
    }

    public function handle(RunStore $runs): void
    {
        if ($runs->work(self::SECONDS) > 0) {
            self::dispatch();
        }
    }
}
