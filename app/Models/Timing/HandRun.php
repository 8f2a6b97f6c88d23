<?php

declare(strict_types=1);

namespace App\Models\Timing;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use App\Models\People\Person;
use App\Models\Rules\StoredRule;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A rule run by hand over a selection of records.
 *
 * @property int $id
 * @property int $rule_id
 * @property string $record_type
 * @property int $by_id
 * @property \DateTimeImmutable $at
 * @property HandRunStatus $status
 * @property int $total
 * @property int $done
 * @property int $fired
 * @property ?\DateTimeImmutable $leased_until
 * @property-read StoredRule $rule
 * @property-read Person $by
 */
final class HandRun extends LedgerModel
{
    protected $table = 'runs';

    protected $casts = [
        'rule_id' => 'integer',
        'by_id' => 'integer',
        'at' => Instant::class,
        'status' => HandRunStatus::class,
        'total' => 'integer',
        'done' => 'integer',
        'fired' => 'integer',
        'leased_until' => Instant::class,
    ];

    /** @return HasMany<HandRunRecord, $this> */
    public function records(): HasMany
    {
        return $this->hasMany(HandRunRecord::class, 'run_id');
    }

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /** @return BelongsTo<Person, $this> */
    public function by(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'by_id', 'id');
    }
}
