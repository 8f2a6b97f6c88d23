<?php

declare(strict_types=1);

namespace App\Models\Ledger;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\Columns;
use App\Models\LedgerModel;
use App\Models\People\Person;
use App\Models\Records\FieldChange;
use App\Models\Rules\StoredRule;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Support\Facades\Context;
use VividLedger\Record\CauseKind;

/**
 * An entry of the ledger. It is written once and never changed.
 *
 * @property int $id
 * @property string $kind
 * @property \DateTimeImmutable $at
 * @property ?int $actor_id
 * @property CauseKind $via
 * @property ?string $record_type
 * @property ?int $record_id
 * @property ?int $version
 * @property ?int $rule_id
 * @property ?int $page
 * @property ?int $task_id
 * @property ?int $cause_id
 * @property array<array-key, mixed> $data
 * @property ?string $request number of the request by which it came about
 * @property-read \Illuminate\Database\Eloquent\Collection<int, FieldChange> $fields
 * @property-read ?StoredRule $rule
 * @property-read ?Person $actor
 * @property-read ?Entry $cause
 */
final class Entry extends LedgerModel
{
    protected $table = 'entries';

    /**
     * An entry as it is written; all have the same columns, so that any of them go into one statement.
     *
     * @param  array<array-key, mixed>  $data
     * @param  array{actor_id?: ?int, via?: CauseKind, record_type?: ?string, record_id?: ?int, version?: ?int, rule_id?: ?int, page?: ?int,
     *     task_id?: ?int, cause_id?: ?int}  $about
     * @return array<string, mixed>
     */
    public static function row(string $kind, \DateTimeImmutable $at, array $data = [], array $about = []): array
    {
        return array_replace([
            'kind' => $kind, 'at' => Columns::moment($at), 'actor_id' => null, 'via' => CauseKind::Person, 'record_type' => null,
            'record_id' => null,
            'version' => null, 'rule_id' => null, 'page' => null, 'task_id' => null, 'cause_id' => null,
            'data' => Columns::json((object) $data), 'request' => Context::get('request'),
        ], $about);
    }

    protected $casts = [
        'at' => Instant::class,
        'actor_id' => 'integer',
        'via' => CauseKind::class,
        'record_id' => 'integer',
        'version' => 'integer',
        'rule_id' => 'integer',
        'page' => 'integer',
        'task_id' => 'integer',
        'cause_id' => 'integer',
        'data' => Json::class,
    ];

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /** @return BelongsTo<Person, $this> */
    public function actor(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'actor_id', 'id');
    }

    /** @return BelongsTo<Entry, $this> */
    public function cause(): BelongsTo
    {
        return $this->belongsTo(Entry::class, 'cause_id', 'id');
    }

    /** @return HasOne<ReversedEntry, $this> that it was reversed */
    public function reversal(): HasOne
    {
        return $this->hasOne(ReversedEntry::class, 'entry_id');
    }

    /** @return HasMany<FieldChange, $this> */
    public function fields(): HasMany
    {
        return $this->hasMany(FieldChange::class, 'entry_id');
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
