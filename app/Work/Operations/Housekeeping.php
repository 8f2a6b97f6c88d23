<?php

declare(strict_types=1);

namespace App\Work\Operations;

use Illuminate\Support\Facades\DB;

/** Sweeps away what the framework keeps in tables of its own for a while. */
final class Housekeeping
{
    /** @return int how many rows were swept away */
    public function sweep(): int
    {
        return DB::table((string) config('session.table'))->where(
            'last_activity',
            '<',
            time() - 60 * (int) config('session.lifetime'),
        )->delete()
            + DB::table((string) config('cache.stores.database.table'))->where('expiration', '<', time())->delete();
    }
}
