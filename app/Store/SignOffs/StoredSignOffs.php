<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\Columns;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Sql\RecordSql;
use Illuminate\Database\Eloquent\Builder as EloquentBuilder;
use Illuminate\Database\Query\Builder;
use VividLedger\Facts\Lock;
use VividLedger\Facts\SignOffFacts;
use VividLedger\Facts\SignOffSeen;
use VividLedger\SignOff\Hold;

/** Sign-offs from the database: as they are now, or what was locked at a moment. */
final class StoredSignOffs implements SignOffFacts
{
    /** @var array<string, ?Lock> by record, asked once */
    private array $locks = [];

    /** @var array<string, ?SignOffSeen> by record and name, asked once */
    private array $seen = [];

    public function __construct(private readonly ?\DateTimeImmutable $at = null)
    {
    }

    public function lockOn(string $type, int $id): ?Lock
    {
        $key = "{$type}:{$id}";

        return array_key_exists($key, $this->locks) ? $this->locks[$key] : $this->locks[$key] = $this->lock($type, $id);
    }

    public function knowsOpen(string $type, int $id): void
    {
        $this->locks["{$type}:{$id}"] = null;
    }

    /**
     * Locks of records that will be asked for, fetched at once.
     *
     * @param  list<int>  $ids
     */
    public function remember(string $type, array $ids): void
    {
        foreach ($ids as $id) {
            $this->locks["{$type}:{$id}"] = null;
        }
        foreach (StoredSignOff::query()->lockingAmong($type, $ids)->orderByDesc('id')->toBase()->get() as $row) {
            $this->locks["{$type}:{$row->record_id}"] = self::of($row);
        }
    }

    public function signOffOn(string $type, int $id, string $called = ''): ?SignOffSeen
    {
        $key = "{$type}:{$id}:{$called}";
        if (! array_key_exists($key, $this->seen)) {
            $at = $this->at;
            $all = StoredSignOff::query()->with('seats')->where('record_type', $type)->where('record_id', $id)
                ->when($called !== '', static fn (EloquentBuilder $named): EloquentBuilder => $named->where('line_key', $called));
            $latest = ($at === null ? $all : $all->where('started_at', '<', Columns::moment($at)))->latest('id')->first();
            $seen = $latest === null ? null : $latest->signOff()->seen($latest->why);
            // What has ended since was open at the moment that is looked back at.
            $this->seen[$key] = $at !== null && $latest?->ended_at > $at ? $seen?->whileOpen() : $seen;
        }

        return $this->seen[$key];
    }

    private function lock(string $type, int $id): ?Lock
    {
        $row = $this->at === null ? RecordSql::lock($type, $id) : $this->lockAt($type, $id, Columns::moment($this->at));

        return $row === null ? null : self::of($row);
    }

    private function lockAt(string $type, int $id, string $at): ?\stdClass
    {
        return StoredSignOff::rows()->where('record_type', $type)->where('record_id', $id)->where('hold', '!=', Hold::Nothing->value)
            ->where('started_at', '<', $at)
            ->where(static fn (Builder $still): Builder => $still->whereNull('ended_at')->orWhere('ended_at', '>', $at))
            ->orderBy('id')->first(['id', 'rule_id', 'run_id', 'started_at', 'hold']);
    }

    private static function of(\stdClass $row): Lock
    {
        return new Lock(
            (int) $row->id,
            (int) $row->rule_id,
            $row->run_id === null ? null : (int) $row->run_id,
            Columns::instant($row->started_at),
            $row->hold === Hold::CatchUp->value,
        );
    }
}
