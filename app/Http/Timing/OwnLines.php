<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Models\Records\StoredRecord;
use App\Models\Tasks\Task;
use App\Models\Tasks\TaskStatus;
use App\Store\Access\AccessScope;
use App\Store\Types\TypeTable;
use Illuminate\Contracts\Database\Query\Builder;

/** Of what is pencilled in, what is somebody's own: on records that belong to them, and when tasks of theirs fall due. */
final readonly class OwnLines
{
    public function __construct(private AccessScope $inSight)
    {
    }

    /**
     * @template TBuilder of Builder
     *
     * @param  TBuilder  $lines
     * @return TBuilder
     */
    public function of(int $person, Builder $lines): Builder
    {
        $types = array_keys($this->inSight->schema()->types);
        $lines->where(static function (Builder $either) use ($person, $types): void {
            $either->whereIn('task_id', Task::query()->where('assignee_id', $person)->where('status', TaskStatus::Open)->select('id'));
            foreach ($types as $type) {
                $table = StoredRecord::tableOf($type);
                $either->orWhereRaw(
                    "(record_type = ? AND EXISTS (SELECT 1 FROM `{$table}` own WHERE own.id = record_id AND own.`"
                        .TypeTable::BELONGING.'` = ?))', [$type, $person],
                );
            }
        });

        return $lines;
    }
}
