<?php

declare(strict_types=1);

namespace App\Store\Import;

use App\Models\Import\ImportProblem;
use App\Models\Lists\BulkJob;

/** What is wrong in a file, told once for all rows in which it is wrong in the same way. */
final class ProblemGroups
{
    private const MOST = 60;

    private const ROWS_NAMED = 5;

    /** @return list<array{field: string, said: string, cell: ?string, count: int, rows: list<int>}> the most frequent first */
    public static function of(BulkJob $job): array
    {
        $groups = ImportProblem::rows()->where('job_id', $job->id)->groupBy('field', 'said')
            ->selectRaw('field, said, MIN(cell) AS one, MAX(cell) AS other, COUNT(*) AS n, MIN(`row`) AS first')
            ->selectRaw("SUBSTRING_INDEX(GROUP_CONCAT(`row` ORDER BY `row`), ',', ".self::ROWS_NAMED.') AS named')
            ->orderByDesc('n')->orderBy('first')->limit(self::MOST)->get();

        return array_values($groups->map(static fn (object $group): array => [
            'field' => (string) $group->field, 'said' => (string) $group->said,
            'cell' => self::same((string) $group->one, (string) $group->other) ? (string) $group->one : null,
            'count' => (int) $group->n, 'rows' => array_map(intval(...), explode(',', (string) $group->named)),
        ])->all());
    }

    private static function same(string $one, string $other): bool
    {
        return $one !== '' && ImportPlan::folded($one) === ImportPlan::folded($other);
    }
}
