<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\Instant;
use Database\Factories\TaskFactory;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Query\Builder as QueryBuilder;

/**
 * A task that a rule gave, or somebody.
 *
 * @property int $id
 * @property string $title
 * @property string $record_type
 * @property int $record_id
 * @property ?int $assignee_id
 * @property ?int $rule_id
 * @property int $entry_id
 * @property TaskStatus $status
 * @property \DateTimeImmutable $given_at
 * @property ?\DateTimeImmutable $due_at
 * @property ?\DateTimeImmutable $done_at
 * @property ?int $done_by
 * @property string $notes
 * @property string $priority
 * @property ?string $about_type
 * @property ?int $about_id
 * @property ?int $run_id
 * @property string $line_key
 * @property string $outcome what came of it
 * @property-read ?Person $assignee
 * @property-read ?Person $doer
 * @property-read ?StoredRule $rule
 */
final class Task extends LedgerModel
{
    /** @use HasFactory<TaskFactory> */
    use HasFactory;

    protected $table = 'tasks';

    /**
     * Tasks that are open, or were at a moment.
     *
     * @param  ?\DateTimeImmutable  $at  null for now
     */
    private static function openRows(?\DateTimeImmutable $at): QueryBuilder
    {
        return $at === null ? self::rows()->where('status', TaskStatus::Open) : self::givenRows($at)->where(
            static fn (QueryBuilder $open): QueryBuilder => $open->whereNull('done_at')->orWhere('done_at', '>', Columns::moment($at)),
        );
    }

    /** Tasks that had been given by a moment. */
    public static function givenRows(\DateTimeImmutable $at): QueryBuilder
    {
        return self::rows()->where('given_at', '<=', Columns::moment($at));
    }

    /**
     * @param  list<int>  $people
     * @param  ?\DateTimeImmutable  $at  null for now
     * @return array<int, int> how many open tasks each has
     */
    public static function openByPerson(array $people, ?\DateTimeImmutable $at = null): array
    {
        $open = [];
        foreach (self::openRows($at)->whereIn('assignee_id', $people)->pluck('assignee_id') as $person) {
            $open[(int) $person] = ($open[(int) $person] ?? 0) + 1;
        }

        return $open;
    }

    protected $casts = [
        'record_id' => 'integer',
        'assignee_id' => 'integer',
        'rule_id' => 'integer',
        'entry_id' => 'integer',
        'status' => TaskStatus::class,
        'given_at' => Instant::class,
        'due_at' => Instant::class,
        'done_at' => Instant::class,
        'done_by' => 'integer',
        'about_id' => 'integer',
        'run_id' => 'integer',
    ];

    /** @return BelongsTo<Person, $this> */
    public function assignee(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'assignee_id', 'id');
    }

    /** @return BelongsTo<Person, $this> who did it */
    public function doer(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'done_by', 'id');
    }

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /**
     * What is still to be done.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeOpen(Builder $query): Builder
    {
        return $query->where('status', TaskStatus::Open);
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
