<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Columns;
use App\Models\LedgerModel;
use App\Store\LedgerConnection;
use Illuminate\Database\Eloquent\Builder;

/** Long work is leased for a while, in real time: a worker that dies gives it back by itself. */
final class Lease
{
    public const SECONDS = 60;

    /**
     * Takes the first piece of work that nobody is at.
     *
     * @template T of LedgerModel
     *
     * @param  Builder<T>  $unfinished
     * @param  array<string, mixed>  $set  what the work becomes besides
     * @return ?T null when there is none
     */
    public static function take(LedgerConnection $db, Builder $unfinished, array $set = []): ?LedgerModel
    {
        return $db->transaction(static function () use ($unfinished, $set): ?LedgerModel {
            $now = new \DateTimeImmutable('@'.time());
            $work = $unfinished->where(static fn (Builder $free): Builder => $free->whereNull('leased_until')
                ->orWhere('leased_until', '<', Columns::moment($now)))
                ->orderBy('id')->lock(Lock::SKIP)->first();
            $work?->update(['leased_until' => self::until($now)] + $set);

            return $work;
        });
    }

    public static function until(?\DateTimeImmutable $now = null): \DateTimeImmutable
    {
        return ($now ?? new \DateTimeImmutable('@'.time()))->modify('+'.self::SECONDS.' seconds');
    }
}
