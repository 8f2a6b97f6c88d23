<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Store\LedgerConnection;

/**
 * Keeps a failing item from holding up the others of a batch: what fails for a reason of its own is reported and dealt with, and the rest
 * goes on. A server that is not there is nobody's fault and ends the batch; so does what others hold, unless the caller goes on without it.
 */
final readonly class FaultIsolation
{
    public function __construct(private LedgerConnection $db)
    {
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $work
     * @param  \Closure(\Throwable): T  $failed  called with what went wrong
     * @param  (\Closure(\Throwable): T)|null  $busy  where others held what the work needs for too long, so that it comes later
     * @return T
     *
     * @throws \Throwable what is not the fault of this item
     */
    public function attempt(\Closure $work, \Closure $failed, ?\Closure $busy = null): mixed
    {
        try {
            return $work();
        } catch (\Throwable $thrown) {
            $answer = $this->db->isLostToAnother($thrown) ? $busy : $failed;
            if ($answer === null || $this->db->isGone($thrown)) {
                throw $thrown;
            }
            report($thrown);

            return $answer($thrown);
        }
    }
}
