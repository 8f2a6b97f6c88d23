<?php

declare(strict_types=1);

namespace App\Models\Timing;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\Columns;
use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A rule at work on a record over time.
 *
 * @property int $id
 * @property int $rule_id
 * @property int $page
 * @property string $record_type
 * @property int $record_id
 * @property int $entry_id
 * @property \DateTimeImmutable $started_at
 * @property RunStatus $status
 * @property array<string, array{string, int}>|null $made
 * @property array<array-key, mixed>|null $began
 */
final class RuleRun extends LedgerModel
{
    protected $table = 'rule_runs';

    /** @param  list<int>  $runs  that are over when none of their lines is left */
    public static function close(array $runs): void
    {
        if ($runs === []) {
            return;
        }
        // Asked by itself, and locking as a change does: within the change, the database went through all lines that are to come.
        $alive = Columns::ints(ScheduledLine::toComeRows()->whereIn('run_id', $runs)->sharedLock()->distinct()->pluck('run_id'));
        $over = array_values(array_diff($runs, $alive));
        if ($over !== []) {
            self::rows()->whereIn('id', $over)->update(['status' => RunStatus::Over]);
        }
    }

    /**
     * Takes runs up again of which lines are to come.
     *
     * @param  Builder<self>  $runs
     */
    public static function takeUp(Builder $runs): void
    {
        $runs->whereHas('lines', static fn (Builder $lines): Builder => $lines->whereIn('status', LineStatus::TO_COME))
            ->update(['status' => RunStatus::InPlay]);
    }

    protected $casts = [
        'rule_id' => 'integer',
        'page' => 'integer',
        'record_id' => 'integer',
        'entry_id' => 'integer',
        'started_at' => Instant::class,
        'status' => RunStatus::class,
        'made' => Json::class,
        'began' => Json::class,
    ];

    /** @return HasMany<ScheduledLine, $this> */
    public function lines(): HasMany
    {
        return $this->hasMany(ScheduledLine::class, 'run_id');
    }

    /**
     * Runs that are not over.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeInPlay(Builder $query): Builder
    {
        return $query->where('status', RunStatus::InPlay);
    }

    /**
     * What stands on one record.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeAbout(Builder $query, string $type, int $id): Builder
    {
        return $query->where('record_type', $type)->where('record_id', $id);
    }
}
