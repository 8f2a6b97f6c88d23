<?php

declare(strict_types=1);

namespace App\Models\Slips;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\Casts\Lines;
use App\Models\LedgerModel;
use App\Models\Rules\StoredRule;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use VividLedger\Slip\ReplySlip;
use VividLedger\Slip\SlipStatus;

/**
 * A reply slip that a rule sent. What it shows and asks is as it was then; what becomes of it meanwhile says the line in the page that
 * was in force then.
 *
 * @property int $id
 * @property list<string> $tells  what its text shows, each a type, the id of a record, and a field of it
 * @property int $rule_id
 * @property int $page
 * @property int $place
 * @property string $line_key
 * @property ?int $run_id
 * @property string $record_type
 * @property int $record_id
 * @property string $subject
 * @property string $html
 * @property list<array<string, mixed>> $asks
 * @property SlipStatus $status
 * @property list<string> $chosen
 * @property ?array<array-key, string|int|bool|null> $given  answers by the place of their question
 * @property ?list<array{asked: string, said: string, path?: string}> $said  the same in words
 * @property int $entry_id
 * @property \DateTimeImmutable $started_at
 * @property ?\DateTimeImmutable $ended_at
 * @property ?\DateTimeImmutable $wakes_at
 * @property-read \Illuminate\Database\Eloquent\Collection<int, SlipTurnRow> $turns
 * @property-read ?StoredRule $rule
 */
final class StoredSlip extends LedgerModel
{
    protected $table = 'slips';

    protected $casts = [
        'tells' => Lines::class,
        'rule_id' => 'integer',
        'page' => 'integer',
        'place' => 'integer',
        'run_id' => 'integer',
        'record_id' => 'integer',
        'asks' => Json::class,
        'status' => SlipStatus::class,
        'chosen' => 'array',
        'given' => 'array',
        'said' => 'array',
        'entry_id' => 'integer',
        'started_at' => Instant::class,
        'ended_at' => Instant::class,
        'wakes_at' => Instant::class,
    ];

    /** @return HasMany<SlipTurnRow, $this> */
    public function turns(): HasMany
    {
        return $this->hasMany(SlipTurnRow::class, 'slip_id', 'id')->orderBy('place');
    }

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /**
     * Those that entries sent and that wait.
     *
     * @param  Builder<static>  $query
     * @param  list<int>  $entries
     * @return Builder<static>
     */
    public function scopeSentBy(Builder $query, array $entries): Builder
    {
        return $query->where('status', SlipStatus::Waiting)->whereIn('entry_id', $entries);
    }

    public function slip(): ReplySlip
    {
        return new ReplySlip(
            $this->started_at,
            array_values($this->turns->map(static fn (SlipTurnRow $turn) => $turn->turn())->all()),
            $this->status,
            $this->ended_at,
            $this->chosen,
        );
    }
}
