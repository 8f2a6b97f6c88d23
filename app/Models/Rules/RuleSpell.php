<?php

declare(strict_types=1);

namespace App\Models\Rules;

use App\Models\Ledger\Entry;
use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A time in which a page was in force, bounded by entries.
 *
 * @property int $id
 * @property int $rule_id
 * @property int $page
 * @property int $from_entry
 * @property ?int $to_entry
 * @property-read StoredRule $rule
 * @property-read ?Entry $begun
 */
final class RuleSpell extends LedgerModel
{
    protected $table = 'rule_spells';

    protected $casts = [
        'rule_id' => 'integer',
        'page' => 'integer',
        'from_entry' => 'integer',
        'to_entry' => 'integer',
    ];

    /** @return BelongsTo<Entry, $this> with which it began */
    public function begun(): BelongsTo
    {
        return $this->belongsTo(Entry::class, 'from_entry', 'id');
    }

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /**
     * Spells that lasted at an entry.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeAt(Builder $query, int $entry): Builder
    {
        return $query->where('from_entry', '<', $entry)
            ->where(static fn (Builder $end): Builder => $end->whereNull('to_entry')->orWhere('to_entry', '>', $entry));
    }
}
