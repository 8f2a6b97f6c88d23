<?php

declare(strict_types=1);

namespace App\Models\Rules;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Builder;
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

    /**
     * @param  non-empty-list<array{int, int}>  $pages  rule and number of each
     * @return array<int, array<int, array<array-key, mixed>>> what they say, by rule and number
     */
    public static function filesOf(array $pages): array
    {
        $files = [];
        $asked = self::query()->where(static function (Builder $any) use ($pages): void {
            foreach ($pages as [$rule, $number]) {
                $any->orWhere(static fn (Builder $page): Builder => $page->where('rule_id', $rule)->where('number', $number));
            }
        });
        foreach ($asked->get(['id', 'rule_id', 'number', 'file']) as $page) {
            $files[$page->rule_id][$page->number] = $page->file;
        }

        return $files;
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
