<?php

declare(strict_types=1);

namespace App\Models\Tasks;

use App\Models\Casts\Instant;
use App\Models\Casts\Lines;
use App\Models\Columns;
use App\Models\LedgerModel;
use App\Models\People\Person;
use App\Models\Rules\StoredRule;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use Database\Factories\Tasks\TaskFactory;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Query\Builder as QueryBuilder;
use VividLedger\Engine\StruckCode;
use VividLedger\Facts\OpenTask;

/**
 * A task that a rule gave, or somebody.
 *
 * @property int $id
 * @property list<string> $tells  what its text shows, each a type, the id of a record, and a field of it
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
 * @property string $outcome what came of it, or why it lapsed
 * @property ?int $page with the place, of the line that says what makes it lapse; null when none does
 * @property ?int $place
 * @property ?string $calendar_uid by which a calendar knows one that came from it
 * @property-read ?Person $assignee
 * @property-read ?Person $doer
 * @property-read ?StoredRule $rule
 */
final class Task extends LedgerModel
{
    /** @use HasFactory<TaskFactory> */
    use HasFactory;

    protected $table = 'tasks';

    /** How many characters are kept of what came of it. */
    public const OUTCOME = 500;

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

    /** @return list<OpenTask> those on a record whose lines say what makes them lapse, in the order they were given */
    public static function mayLapse(string $type, int $id): array
    {
        return array_values(self::rows()->where('record_type', $type)->where('record_id', $id)->where('status', TaskStatus::Open)
            ->whereNotNull('place')->orderBy('id')->get(['id', 'rule_id', 'page', 'place', 'title', 'assignee_id', 'line_key', 'run_id'])
            ->map(static fn (\stdClass $task): OpenTask => new OpenTask(
                id: (int) $task->id, rule: (int) $task->rule_id, page: (int) $task->page, place: (int) $task->place, title: $task->title,
                person: $task->assignee_id === null ? null : (int) $task->assignee_id, key: $task->line_key,
                run: $task->run_id === null ? null : (int) $task->run_id,
            ))->all());
    }

    /**
     * They need not be done any more, and fall due no more.
     *
     * @param  list<int>  $ids
     */
    public static function lapse(array $ids, string $because, \DateTimeImmutable $at): void
    {
        self::rows()->whereIn('id', $ids)->where('status', TaskStatus::Open)->update([
            'status' => TaskStatus::Lapsed, 'done_at' => Columns::moment($at), 'outcome' => mb_substr($because, 0, self::OUTCOME),
        ]);
        ScheduledLine::rows()->whereIn('task_id', $ids)->whereIn('status', LineStatus::TO_COME)
            ->update(ScheduledLine::struck(StruckCode::TaskLapsed, 'the task has lapsed'));
    }

    protected $casts = [
        'tells' => Lines::class,
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
        'page' => 'integer',
        'place' => 'integer',
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
