<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\LedgerModel;
use Illuminate\Database\Eloquent\Builder;

/**
 * Who follows a record.
 *
 * @property string $record_type
 * @property int $record_id
 * @property int $person_id
 */
final class Follower extends LedgerModel
{
    protected $table = 'followers';

    public static function set(string $type, int $id, int $person, bool $follows): void
    {
        $row = ['record_type' => $type, 'record_id' => $id, 'person_id' => $person];
        $follows ? self::rows()->insertOrIgnore($row) : self::rows()->where($row)->delete();
    }

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'record_id' => 'integer',
        'person_id' => 'integer',
    ];

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
