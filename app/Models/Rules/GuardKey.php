<?php

declare(strict_types=1);

namespace App\Models\Rules;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Builder;

/**
 * A key that a repeat guard has used up on a record.
 *
 * @property int $rule_id
 * @property string $record_type
 * @property int $record_id
 * @property string $guard_key
 * @property int $entry_id
 * @property int $epoch
 * @property \DateTimeImmutable $at
 */
final class GuardKey extends LedgerModel
{
    protected $table = 'guard_keys';

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'rule_id' => 'integer',
        'record_id' => 'integer',
        'entry_id' => 'integer',
        'epoch' => 'integer',
        'at' => Instant::class,
    ];

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
