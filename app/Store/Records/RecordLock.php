<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\SignOffs\StoredSignOffs;
use VividLedger\Facts\Lock;
use VividLedger\Record\EventKind;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\SeatState;
use VividLedger\Words\Words;

/** Keeps people from changing a record while a sign-off that locks it waits. */
final readonly class RecordLock
{
    public function on(RecordType $type, int $id): ?Lock
    {
        return (new StoredSignOffs)->lockOn($type->name, $id);
    }

    /** @throws DomainError */
    public function mustBeOpen(RecordType $type, int $id): void
    {
        $lock = $this->on($type, $id);
        if ($lock !== null) {
            throw new DomainError('locked', $this->said($type, $id, $lock), RefusedFor::Conflict);
        }
    }

    /** Whether somebody who makes an event happen means to change the record by it. */
    public static function keepsFrom(EventKind $kind): bool
    {
        return $kind === EventKind::ByHand;
    }

    /** "Q-0012 is locked until Ulla Verne and Edda Marlow have said whether it is signed off." */
    public function said(RecordType $type, int $id, Lock $lock): string
    {
        $names = SignOffSeat::query()->where('sign_off_id', $lock->signOff)->where('state', SeatState::Waiting)->with('person')
            ->orderBy('place')->get()->map(static fn (SignOffSeat $seat): string => $seat->person->name)->all();
        $number = $type->numberOf($id);

        return match (count($names)) {
            0 => Words::say('{number} is locked until a sign-off has ended.', number: $number),
            1 => Words::say('{number} is locked until {person} has said whether to sign it off.', number: $number, person: $names[0]),
            default => Words::say(
                '{number} is locked until {people} have said whether to sign it off.',
                number: $number,
                people: Words::list(array_values($names)),
            ),
        };
    }

    /**
     * Those of some records that are locked.
     *
     * @param  list<int>  $ids
     * @return array<int, true> by id
     */
    public function among(RecordType $type, array $ids): array
    {
        $locked = StoredSignOff::query()->lockingAmong($type->name, $ids)->pluck('record_id')->all();

        return array_fill_keys(array_map(intval(...), $locked), true);
    }
}
