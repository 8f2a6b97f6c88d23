<?php

declare(strict_types=1);

namespace App\Models\Operations;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use Database\Factories\Operations\WorkerProcessFactory;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Database\Eloquent\MassPrunable;

/**
 * A long-running process, as it last said that it is there.
 *
 * @property string $process
 * @property string $kind
 * @property \DateTimeImmutable $started_at
 * @property \DateTimeImmutable $beat_at
 * @property int $done
 */
final class WorkerProcess extends LedgerModel
{
    /** @use HasFactory<WorkerProcessFactory> */
    use HasFactory;

    protected $table = 'heartbeats';

    public $incrementing = false;

    protected $primaryKey = 'process';

    protected $keyType = 'string';

    protected $casts = [
        'started_at' => Instant::class,
        'beat_at' => Instant::class,
        'done' => 'integer',
    ];

    use MassPrunable;

    private const SILENT_SECONDS = 3600;

    /** @return Builder<static> */
    public function prunable(): Builder
    {
        return self::query()->where('beat_at', '<', gmdate('Y-m-d H:i:s', time() - self::SILENT_SECONDS));
    }
}
