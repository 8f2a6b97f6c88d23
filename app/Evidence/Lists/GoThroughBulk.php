<?php

declare(strict_types=1);

namespace App\Evidence\Lists;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Goes on with changes of many records, and with imports. */
final class GoThroughBulk implements ShouldQueue
{
    use Queueable;

    /** Each job begins with what the company keeps by then. */
    private const SECONDS = 3.0;

    public function __construct()
    {
        $this->onQueue('runs');
    }

    public function handle(BulkWorker $worker): void
    {
        if ($worker->work(self::SECONDS) > 0) {
            self::dispatch();
        }
    }
}
