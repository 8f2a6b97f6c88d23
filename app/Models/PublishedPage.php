<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * A page of a rule: once published it is never changed.
 *
 * @property int $id
 * @property int $rule_id
 * @property int $number
 * @property array<array-key, mixed> $file
 * @property \DateTimeImmutable $published_at
 * @property int $published_by
 * @property string $why
 * @property-read Person $publisher
 */
final class PublishedPage extends LedgerModel
{
    protected $table = 'rule_pages';

    /** @return array<array-key, mixed> what a page of a rule says */
    public static function fileOf(int $rule, int $number): array
    {
        return self::query()->where('rule_id', $rule)->where('number', $number)->firstOrFail()->file;
    }

    protected $casts = [
        'rule_id' => 'integer',
        'number' => 'integer',
        'file' => Json::class,
        'published_at' => Instant::class,
        'published_by' => 'integer',
    ];

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /** @return BelongsTo<Person, $this> */
    public function publisher(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'published_by', 'id');
    }
}
