<?php

declare(strict_types=1);

namespace App\Models\Timing;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use App\Models\Slips\TurnStatus;

/**
 * A turn of the house clock.
 *
 * @property int $id
 * @property \DateTimeImmutable $from_at
 * @property \DateTimeImmutable $to_at
 * @property \DateTimeImmutable $reached_at
 * @property TurnStatus $status
 * @property int $by_id
 * @property int $first_entry
 * @property int $done
 * @property ?\DateTimeImmutable $leased_until
 */
final class ClockTurn extends LedgerModel
{
    protected $table = 'clock_turns';

    protected $casts = [
        'from_at' => Instant::class,
        'to_at' => Instant::class,
        'reached_at' => Instant::class,
        'status' => TurnStatus::class,
        'by_id' => 'integer',
        'first_entry' => 'integer',
        'done' => 'integer',
        'leased_until' => Instant::class,
    ];
}
