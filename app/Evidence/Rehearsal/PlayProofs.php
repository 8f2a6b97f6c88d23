<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use Illuminate\Contracts\Queue\ShouldBeUniqueUntilProcessing;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Plays the proofs that have not been played since something changed. One that waits is enough, however much changes. */
final class PlayProofs implements ShouldBeUniqueUntilProcessing, ShouldQueue
{
    use Queueable;

    private const AT_ONCE = 20;

    /** Whatever becomes of it, another may wait after this long. */
    public int $uniqueFor = 120;

    public function __construct()
    {
        $this->onQueue('proofs');
    }

    public function handle(Proofs $proofs): void
    {
        if ($proofs->work(self::AT_ONCE) === self::AT_ONCE) {
            self::dispatch();
        }
    }
}
