<?php

declare(strict_types=1);

namespace App\Store\Ledger;

use App\Models\Ledger\Entry;
use App\Models\Ledger\EntrySeal;
use App\Models\Setup\CompanySettings;
use App\Store\Sql\Batch;
use App\Store\Sql\Lock;
use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;

/**
 * Seals entries a while after they were written, off the way of every save: each with the hash of what it keeps and of the seal before
 * it. Numbers are given out before they are committed, so only what is older than everything under way is sealed.
 */
final readonly class Sealer
{
    /** An entry is sealed so many seconds after its number was the last. */
    private const LATER = 120;

    private const AT_ONCE = 20_000;

    /** Lock wait time-out. */
    private const HELD = 1205;

    public function __construct(private Connection $db, private SealedRows $rows)
    {
    }

    /** @return int how many were sealed */
    public function work(): int
    {
        $settings = CompanySettings::query()->find(CompanySettings::ID);
        if ($settings === null) {
            return 0;
        }
        $now = new \DateTimeImmutable;
        $sealed = 0;
        if ($settings->sealing_since !== null && $settings->sealing_since <= $now->modify('-'.self::LATER.' seconds')) {
            $sealed = $this->seal($settings->sealing_upto);
        }
        $isDone = $settings->sealing_since === null || (int) EntrySeal::query()->max('entry_id') >= $settings->sealing_upto;
        $last = (int) Entry::query()->max('id');
        if ($isDone && $last > $settings->sealing_upto) {
            CompanySettings::query()->whereKey(CompanySettings::ID)->update(['sealing_upto' => $last, 'sealing_since' => $now]);
        }

        return $sealed;
    }

    /** @return int how many were sealed, of those up to a number; none where one of them is not committed yet */
    public function seal(int $upto): int
    {
        return $this->db->transaction(function () use ($upto): int {
            // One at a time: there is one chain.
            CompanySettings::query()->whereKey(CompanySettings::ID)->lockForUpdate()->first();
            $before = EntrySeal::query()->orderByDesc('entry_id')->first();
            if ($this->isUnderWay($before->entry_id ?? 0, $upto)) {
                return 0;
            }
            $hash = $before->hash ?? '';
            $seals = [];
            foreach ($this->rows->between($before->entry_id ?? 0, $upto) as $id => [$content]) {
                $seals[] = ['entry_id' => $id, 'hash' => $hash = SealedRows::hash($hash, $content)];
                if (count($seals) >= self::AT_ONCE) {
                    break;
                }
            }
            foreach (array_chunk($seals, 2000) as $some) {
                Batch::insert(EntrySeal::class, $some);
            }

            return count($seals);
        });
    }

    /** A locking read stumbles over what others have written and not committed, which no other read sees. */
    private function isUnderWay(int $after, int $upto): bool
    {
        $last = Entry::rows()->where('id', '>', $after)->where('id', '<=', $upto)->orderBy('id')->skip(self::AT_ONCE - 1)->value('id');
        try {
            Entry::rows()->where('id', '>', $after)->where('id', '<=', min($upto, (int) ($last ?? $upto)))->lock(Lock::ASK)->count();

            return false;
        } catch (QueryException $held) {
            return ($held->errorInfo[1] ?? null) === self::HELD ? true : throw $held;
        }
    }
}
