<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use App\Models\StoredSignOff;
use Illuminate\Database\Query\Builder;
use VividLedger\Facts\Lock;
use VividLedger\Facts\SignOffFacts;
use VividLedger\Facts\SignOffSeen;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\SignOffStatus;

/** Sign-offs from the database: as they are now, or what was locked at a moment. */
final readonly class StoredSignOffs implements SignOffFacts
{
    public function __construct(private ?\DateTimeImmutable $at = null)
    {
    }

    public function lockOn(string $type, int $id): ?Lock
    {
        $rows = StoredSignOff::rows()->where('record_type', $type)->where('record_id', $id)->where('hold', '!=', Hold::Nothing->value);
        if ($this->at === null) {
            $rows->where('status', SignOffStatus::Waiting->value)->where('released', false);
        } else {
            $at = Columns::moment($this->at);
            $rows->where('started_at', '<', $at)
                ->where(static fn (Builder $still): Builder => $still->whereNull('ended_at')->orWhere('ended_at', '>', $at));
        }
        $row = $rows->orderBy('id')->first(['id', 'rule_id', 'run_id', 'started_at', 'hold']);

        return $row === null ? null : new Lock(
            (int) $row->id,
            (int) $row->rule_id,
            $row->run_id === null ? null : (int) $row->run_id,
            Columns::instant($row->started_at),
            $row->hold === Hold::CatchUp->value,
        );
    }

    public function signOffOn(string $type, int $id): ?SignOffSeen
    {
        $latest = StoredSignOff::query()->with('seats')->where('record_type', $type)->where('record_id', $id)->latest('id')->first();

        return $latest === null ? null : $latest->signOff()->seen($latest->why);
    }
}
