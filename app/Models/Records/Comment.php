<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\Casts\Instant;
use App\Models\Casts\Lines;
use App\Models\LedgerModel;
use App\Models\People\Person;
use App\Models\Rules\StoredRule;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What somebody, or a rule, remarked on a record.
 *
 * @property int $id
 * @property list<string> $tells  what its text shows, each a type, the id of a record, and a field of it
 * @property string $record_type
 * @property int $record_id
 * @property string $text
 * @property ?int $author_id
 * @property ?int $rule_id
 * @property \DateTimeImmutable $at
 */
final class Comment extends LedgerModel
{
    protected $table = 'comments';

    protected $casts = [
        'tells' => Lines::class,
        'record_id' => 'integer',
        'author_id' => 'integer',
        'rule_id' => 'integer',
        'at' => Instant::class,
    ];

    /** @return BelongsTo<Person, $this> */
    public function author(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'author_id', 'id');
    }

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
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
