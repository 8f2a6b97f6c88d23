<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\Columns;
use App\Models\LedgerModel;

/**
 * A record that was merged into another one.
 *
 * @property string $record_type
 * @property int $record_id
 * @property int $into_id
 */
final class MergedRecord extends LedgerModel
{
    protected $table = 'merged_records';

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'record_id' => 'integer',
        'into_id' => 'integer',
    ];

    /** @return list<int> the records that have become part of one, those that had become part of them included */
    public static function within(string $type, int $id): array
    {
        [$all, $next] = [[], [$id]];
        while ($next !== []) {
            $next = array_values(array_diff(
                Columns::ints(self::rows()->where('record_type', $type)->whereIn('into_id', $next)->pluck('record_id')), $all, [$id],
            ));
            array_push($all, ...$next);
        }

        return $all;
    }
}
