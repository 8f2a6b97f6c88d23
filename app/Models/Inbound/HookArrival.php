<?php

declare(strict_types=1);

namespace App\Models\Inbound;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;

/**
 * What arrived at a hook, once, as it was.
 *
 * @property int $id
 * @property int $hook_id
 * @property string $key  by which the other system names it, however often it posts it
 * @property \DateTimeImmutable $at
 * @property HookOutcome $outcome
 * @property string $record_type
 * @property ?int $record_id
 * @property int $times  how often it arrived
 * @property string $trouble
 * @property string $raw
 */
final class HookArrival extends LedgerModel
{
    protected $table = 'hook_arrivals';

    protected $casts = [
        'hook_id' => 'integer',
        'at' => Instant::class,
        'outcome' => HookOutcome::class,
        'record_id' => 'integer',
        'times' => 'integer',
    ];
}
