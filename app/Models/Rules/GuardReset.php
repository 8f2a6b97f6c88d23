<?php

declare(strict_types=1);

namespace App\Models\Rules;

use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Builder;

/**
 * That a guard was made ready again on a record.
 *
 * @property int $rule_id
 * @property string $record_type
 * @property int $record_id
 * @property int $epoch
 * @property int $entry_id
 */
final class GuardReset extends LedgerModel
{
    protected $table = 'guard_resets';

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'rule_id' => 'integer',
        'record_id' => 'integer',
        'epoch' => 'integer',
        'entry_id' => 'integer',
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
