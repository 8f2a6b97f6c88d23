<?php

declare(strict_types=1);

namespace App\Models\Timing;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use App\Models\Rules\StoredRule;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * How far the sweep of a rule that time sets off has come.
 *
 * @property int $rule_id
 * @property \DateTimeImmutable $swept_until
 * @property ?\DateTimeImmutable $sweeping_to
 * @property int $at_id
 * @property-read StoredRule $rule
 */
final class SweepMark extends LedgerModel
{
    protected $table = 'sweeps';

    public $incrementing = false;

    protected $primaryKey = 'rule_id';

    protected $casts = [
        'rule_id' => 'integer',
        'swept_until' => Instant::class,
        'sweeping_to' => Instant::class,
        'at_id' => 'integer',
    ];

    /** Whether nobody has swept on since the other was read. */
    public function isWhereItWas(self $before): bool
    {
        return $this->swept_until == $before->swept_until && $this->sweeping_to == $before->sweeping_to && $this->at_id === $before->at_id;
    }

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }
}
