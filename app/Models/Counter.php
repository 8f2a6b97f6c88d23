<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Support\Facades\DB;

/**
 * How far records of a type are numbered by one field, within one period.
 *
 * @property string $record_type
 * @property string $field
 * @property string $period
 * @property int $last
 */
final class Counter extends LedgerModel
{
    public $incrementing = false;

    protected $table = 'counters';

    /** The next count, which nobody else gets; others wait until the transaction is over, so that none is left out. */
    public static function next(string $type, string $field, string $period): int
    {
        DB::insert('INSERT INTO counters (record_type, field, period, last) VALUES (?, ?, ?, LAST_INSERT_ID(1))
            ON DUPLICATE KEY UPDATE last = LAST_INSERT_ID(last + 1)', [$type, $field, $period]);

        return (int) DB::scalar('SELECT LAST_INSERT_ID()');
    }
}
