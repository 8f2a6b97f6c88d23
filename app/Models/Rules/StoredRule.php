<?php

declare(strict_types=1);

namespace App\Models\Rules;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\Events\RulesChanged;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Database\Query\Builder as QueryBuilder;
use VividLedger\Rule\RuleStatus;

/**
 * A rule: its state, its place among the others, and the draft being written.
 *
 * @property int $id
 * @property string $record_type
 * @property string $name
 * @property RuleStatus $status
 * @property int $position
 * @property ?int $page
 * @property array<array-key, mixed>|null $draft
 * @property int $draft_version
 * @property ?\DateTimeImmutable $draft_at
 * @property ?int $draft_by
 * @property \DateTimeImmutable $created_at
 * @property string $either_or
 * @property-read ?PublishedPage $currentPage
 * @property-read ?Person $drafter
 * @property-read ?RuleSpell $currentSpell
 */
final class StoredRule extends LedgerModel
{
    protected $table = 'rules';

    protected $dispatchesEvents = ['saved' => RulesChanged::class, 'deleted' => RulesChanged::class];

    public const NAME_LENGTH = 80;

    public const WITHOUT_DRAFT = ['draft' => null, 'draft_at' => null, 'draft_by' => null];

    /** @return array{int, int, string} what its page in force is asked for by: rule, number and either/or set */
    public static function pageKey(self $rule): array
    {
        return [$rule->id, (int) $rule->page, $rule->either_or];
    }

    protected $casts = [
        'status' => RuleStatus::class,
        'position' => 'integer',
        'page' => 'integer',
        'draft' => Json::class,
        'draft_version' => 'integer',
        'draft_at' => Instant::class,
        'draft_by' => 'integer',
        'created_at' => Instant::class,
    ];

    /** @return HasMany<PublishedPage, $this> */
    public function pages(): HasMany
    {
        return $this->hasMany(PublishedPage::class, 'rule_id');
    }

    /** @return HasOne<RuleSpell, $this> in which its page is in force */
    public function currentSpell(): HasOne
    {
        return $this->hasOne(RuleSpell::class, 'rule_id')->whereNull('to_entry');
    }

    /** @return HasMany<RuleWatch, $this> */
    public function watches(): HasMany
    {
        return $this->hasMany(RuleWatch::class, 'rule_id');
    }

    /** @return HasOne<PublishedPage, $this> the page in force, or last in force */
    public function currentPage(): HasOne
    {
        return $this->hasOne(PublishedPage::class, 'rule_id')
            ->where('number', '=', static fn (QueryBuilder $page): QueryBuilder => $page->from((new self)->getTable(),
                'r')->select('r.page')
                ->whereColumn('r.id', 'rule_pages.rule_id'));
    }

    /** @return BelongsTo<Person, $this> */
    public function drafter(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'draft_by', 'id');
    }

    /**
     * Rules that answer changes.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeInForce(Builder $query): Builder
    {
        return $query->where('status', RuleStatus::InForce);
    }
}
