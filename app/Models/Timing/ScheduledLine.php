<?php

declare(strict_types=1);

namespace App\Models\Timing;

use App\Models\Access\HeldCode;
use App\Models\Casts\Instant;
use App\Models\Columns;
use App\Models\LedgerModel;
use App\Models\Rules\StoredRule;
use App\Models\Tasks\Task;
use Database\Factories\Timing\ScheduledLineFactory;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Query\Builder as QueryBuilder;
use VividLedger\Engine\StruckCode;
use VividLedger\Record\Value;

/**
 * A line that is pencilled in for a moment, or has come to its end.
 *
 * @property int $id
 * @property LineSort $sort
 * @property string $kind
 * @property LineStatus $status
 * @property ?\DateTimeImmutable $due_at
 * @property ?\DateTimeImmutable $meant_at
 * @property ?\DateTimeImmutable $counted_at
 * @property ?\DateTimeImmutable $met_at
 * @property string $record_type
 * @property int $record_id
 * @property ?int $task_id
 * @property int $entry_id
 * @property ?string $struck_because
 * @property ?int $run_id
 * @property ?int $rule_id
 * @property ?int $page
 * @property ?int $place
 * @property int $turn
 * @property string $said
 * @property string $note
 * @property ?string $occasion
 * @property ?StruckCode $struck_code
 * @property ?HeldCode $held_code
 * @property-read ?Task $task
 * @property-read ?StoredRule $rule
 */
final class ScheduledLine extends LedgerModel
{
    /** @use HasFactory<ScheduledLineFactory> */
    use HasFactory;

    protected $table = 'scheduled_lines';

    private const BECAUSE = 200;

    /** Those that have not come to their end, as the database gives them. */
    public static function toComeRows(): QueryBuilder
    {
        return self::rows()->whereIn('status', LineStatus::TO_COME);
    }

    /** @return array{said: string, due: ?string} how the ledger names the line */
    public function told(): array
    {
        return ['said' => $this->said, 'due' => $this->due_at === null ? null : Value::instantText($this->due_at)];
    }

    /** The first moment after another at which something falls due; null when nothing is pencilled in. */
    public static function nextDue(\DateTimeImmutable $after): ?\DateTimeImmutable
    {
        $due = self::rows()->where('status', LineStatus::Pencilled)->where('due_at', '>', Columns::moment($after))->min('due_at');

        return is_string($due) ? Columns::instant($due) : null;
    }

    /**
     * Pencils in a row for each record that a query finds.
     *
     * @param  QueryBuilder  $records  of a record table as "t", selecting when each falls due as "due_at"
     * @param  array<string, string|int|\BackedEnum>  $same  what all of them have
     * @return int how many
     */
    public static function pencilFrom(QueryBuilder $records, array $same): int
    {
        $records->columns = array_values(array_filter($records->columns ?? [], static fn (mixed $column): bool => $column !== 't.*'));
        $records->addSelect('t.id');
        foreach ($same as $column => $value) {
            $records->selectRaw("? AS `{$column}`", [$value instanceof \BackedEnum ? $value->value : $value]);
        }

        return self::rows()->insertUsing(['due_at', 'record_id', ...array_keys($same)], $records);
    }

    /** @return array<string, mixed> what a line becomes that is struck out */
    public static function struck(StruckCode $code, string $because): array
    {
        return ['status' => LineStatus::Struck, 'struck_code' => $code, 'struck_because' => mb_substr($because, 0, self::BECAUSE)];
    }

    protected $casts = [
        'sort' => LineSort::class,
        'struck_code' => StruckCode::class,
        'held_code' => HeldCode::class,
        'status' => LineStatus::class,
        'due_at' => Instant::class,
        'meant_at' => Instant::class,
        'counted_at' => Instant::class,
        'met_at' => Instant::class,
        'record_id' => 'integer',
        'task_id' => 'integer',
        'entry_id' => 'integer',
        'run_id' => 'integer',
        'rule_id' => 'integer',
        'page' => 'integer',
        'place' => 'integer',
        'turn' => 'integer',
    ];

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /** @return BelongsTo<Task, $this> */
    public function task(): BelongsTo
    {
        return $this->belongsTo(Task::class, 'task_id', 'id');
    }

    /** @return BelongsTo<RuleRun, $this> */
    public function run(): BelongsTo
    {
        return $this->belongsTo(RuleRun::class, 'run_id', 'id');
    }

    /**
     * What is still to come: pencilled in or held.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeToCome(Builder $query): Builder
    {
        return $query->whereIn('status', LineStatus::TO_COME);
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
