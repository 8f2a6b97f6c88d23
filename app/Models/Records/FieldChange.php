<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\Casts\Json;
use App\Models\Ledger\Entry;
use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What one entry wrote into one field.
 *
 * @property int $id
 * @property int $entry_id
 * @property string $record_type
 * @property int $record_id
 * @property string $field
 * @property mixed $before
 * @property mixed $after
 * @property-read Entry $entry
 */
final class FieldChange extends LedgerModel
{
    protected $table = 'field_history';

    protected $casts = [
        'entry_id' => 'integer',
        'record_id' => 'integer',
        'before' => Json::class,
        'after' => Json::class,
    ];

    /** @return BelongsTo<Entry, $this> */
    public function entry(): BelongsTo
    {
        return $this->belongsTo(Entry::class, 'entry_id', 'id');
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
