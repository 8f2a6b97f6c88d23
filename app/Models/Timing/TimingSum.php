<?php

declare(strict_types=1);

namespace App\Models\Timing;

use App\Models\LedgerModel;

/**
 * How often something took no longer than the upper end of a bucket, and longer than that of the one before.
 *
 * @property string $name
 * @property int $bucket index into Timings::BUCKETS
 * @property int $count
 * @property float $seconds in all
 */
final class TimingSum extends LedgerModel
{
    public $incrementing = false;

    protected $table = 'timings';
}
