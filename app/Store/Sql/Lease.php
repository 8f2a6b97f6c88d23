<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Columns;
use App\Models\LedgerModel;
use App\Store\LedgerConnection;
use Illuminate\Database\Eloquent\Builder;

/**
 * Work that takes long is leased for a while: a worker that dies gives it back by itself. In real time, as a house clock that is held or
 * turned would keep it for ever or give it to two.
 */
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
    public static function take(LedgerConnection $db, Builder $unfinished, array $set = [], int $seconds = self::SECONDS): ?LedgerModel
    {
        return $db->transaction(static function () use ($unfinished, $set, $seconds): ?LedgerModel {
            $work = self::first($unfinished);
            $work?->update(['leased_until' => self::until($seconds)] + $set);

            return $work;
        });
    }

    /**
     * The first that is free, locked; what another transaction is taking is passed over.
     *
     * @template T of LedgerModel
     *
     * @param  Builder<T>  $work
     * @return ?T
     */
    public static function first(Builder $work): ?LedgerModel
    {
        return self::free($work)->orderBy('id')->lock(Lock::SKIP)->first();
    }

    /**
     * What is with nobody, or was with somebody who has not been heard of for too long.
     *
     * @template T of LedgerModel
     *
     * @param  Builder<T>  $work
     * @return Builder<T>
     */
    public static function free(Builder $work): Builder
    {
        $now = Columns::moment(new \DateTimeImmutable('@'.time()));

        return $work->where(static fn (Builder $free): Builder => $free->whereNull('leased_until')->orWhere('leased_until', '<', $now));
    }

    public static function until(int $seconds = self::SECONDS): \DateTimeImmutable
    {
        return new \DateTimeImmutable('@'.(time() + $seconds));
    }
}
