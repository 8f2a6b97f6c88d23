<?php

declare(strict_types=1);

namespace App\Models\SignOffs;

use App\Models\Casts\Instant;
use App\Models\Casts\Lines;
use App\Models\LedgerModel;
use App\Models\People\Person;
use App\Models\Rules\StoredRule;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\Seat;
use VividLedger\SignOff\SignOff;
use VividLedger\SignOff\SignOffStatus;

/**
 * A sign-off that a rule asked for. Its route is the one of the line it stands on, in the page that was in force then.
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
 * @property ?int $asker_id
 * @property string $why
 * @property SignOffStatus $status
 * @property int $step
 * @property int $needed
 * @property list<int> $queue
 * @property int $entry_id
 * @property \DateTimeImmutable $started_at
 * @property ?\DateTimeImmutable $ended_at
 * @property ?\DateTimeImmutable $wakes_at
 * @property Hold $hold
 * @property bool $released
 * @property ?list<array<mixed>> $route
 * @property-read \Illuminate\Database\Eloquent\Collection<int, SignOffSeat> $seats
 * @property-read ?Person $asker
 * @property-read ?StoredRule $rule
 */
final class StoredSignOff extends LedgerModel
{
    protected $table = 'sign_offs';

    /** Whether what it was about was found to be gone. */
    public bool $isGone = false;

    protected $casts = [
        'tells' => Lines::class,
        'rule_id' => 'integer',
        'page' => 'integer',
        'place' => 'integer',
        'run_id' => 'integer',
        'record_id' => 'integer',
        'asker_id' => 'integer',
        'status' => SignOffStatus::class,
        'step' => 'integer',
        'needed' => 'integer',
        'queue' => 'array',
        'entry_id' => 'integer',
        'started_at' => Instant::class,
        'ended_at' => Instant::class,
        'wakes_at' => Instant::class,
        'hold' => Hold::class,
        'released' => 'boolean',
        'route' => 'array',
    ];

    /** @return HasMany<SignOffSeat, $this> */
    public function seats(): HasMany
    {
        return $this->hasMany(SignOffSeat::class, 'sign_off_id', 'id')->orderBy('place');
    }

    /** @return BelongsTo<Person, $this> */
    public function asker(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'asker_id', 'id');
    }

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /** @return array<string, mixed> the columns that change with it */
    public static function standing(SignOff $signOff, ?\DateTimeImmutable $wakes): array
    {
        return [
            'status' => $signOff->status, 'step' => $signOff->step, 'needed' => $signOff->needed, 'queue' => $signOff->queue,
            'ended_at' => $signOff->endedAt, 'wakes_at' => $wakes,
        ];
    }

    /**
     * Those that entries asked for and that wait.
     *
     * @param  Builder<static>  $query
     * @param  list<int>  $entries
     * @return Builder<static>
     */
    public function scopeAskedBy(Builder $query, array $entries): Builder
    {
        return $query->where('status', SignOffStatus::Waiting)->whereIn('entry_id', $entries);
    }

    /**
     * Those that lock a record.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeLocking(Builder $query, string $type, int $id): Builder
    {
        return $this->scopeLockingAmong($query, $type, [$id]);
    }

    /**
     * Those that lock one of several records.
     *
     * @param  Builder<static>  $query
     * @param  list<int>  $ids
     * @return Builder<static>
     */
    public function scopeLockingAmong(Builder $query, string $type, array $ids): Builder
    {
        return $query->where('record_type', $type)->whereIn('record_id', $ids)->where('status', SignOffStatus::Waiting)
            ->where('hold', '!=', Hold::Nothing)->where('released', false);
    }

    public function signOff(): SignOff
    {
        return new SignOff(
            asker: $this->asker_id, startedAt: $this->started_at, step: $this->step, needed: $this->needed,
            seats: array_values($this->seats->map(static fn (SignOffSeat $seat): Seat => $seat->seat())->all()), queue: $this->queue,
            status: $this->status, endedAt: $this->ended_at,
        );
    }
}
