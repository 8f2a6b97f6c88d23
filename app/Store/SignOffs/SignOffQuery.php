<?php

declare(strict_types=1);

namespace App\Store\SignOffs;

use App\Models\People\Person;
use App\Models\Records\StoredRecord;
use App\Models\Rules\StoredRule;
use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Access\AccessScope;
use App\Store\Lists\RecordSearch;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as QueryBuilder;
use Illuminate\Support\Facades\DB;
use VividLedger\Schema\RecordType;
use VividLedger\SignOff\SeatState;

/** Finds sign-offs: those of one of the boxes, narrowed by what is asked for. */
final readonly class SignOffQuery
{
    public function __construct(private RecordSearch $search, private AccessScope $inSight)
    {
    }

    /**
     * In the order in which they are shown: those that wait for somebody from the one that has waited longest, others the latest first.
     *
     * @param  string  $box  waiting, asked, decided or all
     * @param  ?int  $after  id of the last one that was shown
     * @return Builder<StoredSignOff>
     */
    public function page(string $box, Person $me, SignOffFilter $filter, ?int $after, int $most): Builder
    {
        if ($box !== 'waiting') {
            $all = $this->of($box, $me, $filter)->latest('id')->limit($most);

            return $after === null ? $all : $all->where('id', '<', $after);
        }
        // Found through the index of seats: of ten thousand only the first are looked at.
        $seats = self::seats($me, SeatState::Waiting)->where('sign_off_id', '>', $after ?? 0)->orderBy('sign_off_id')
            ->select('sign_off_id');
        if ($filter->isNone()) {
            return StoredSignOff::query()->whereIn('id', $seats->limit($most)->pluck('sign_off_id'))->orderBy('id');
        }

        return $this->narrowed(StoredSignOff::query()->whereIn('id', $seats), $filter)->orderBy('id')->limit($most);
    }

    public function count(string $box, Person $me, SignOffFilter $filter = new SignOffFilter): int
    {
        return $box === 'waiting' && $filter->isNone()
            ? self::seats($me, SeatState::Waiting)->count()
            : $this->of($box, $me, $filter)->count();
    }

    /** @return Builder<StoredSignOff> */
    private function of(string $box, Person $me, SignOffFilter $filter): Builder
    {
        $seats = static fn (SeatState ...$states): Builder => self::seats($me, ...$states)->select('sign_off_id');

        return $this->narrowed(match ($box) {
            'waiting' => StoredSignOff::query()->whereIn('id', $seats(SeatState::Waiting)),
            'asked' => StoredSignOff::query()->where('asker_id', $me->id),
            'decided' => StoredSignOff::query()->whereIn('id', $seats(SeatState::Yes, SeatState::No)->where('by_itself', false)),
            default => StoredSignOff::query(),
        }, $filter);
    }

    /**
     * @param  Builder<StoredSignOff>  $all
     * @return Builder<StoredSignOff>
     */
    private function narrowed(Builder $all, SignOffFilter $filter): Builder
    {
        foreach (['status' => $filter->status, 'record_type' => $filter->type, 'rule_id' => $filter->rule] as $column => $value) {
            if ($value !== null) {
                $all->where($column, $value);
            }
        }
        if ($filter->person !== null) {
            $all->whereIn('id', SignOffSeat::query()->where('person_id', $filter->person)->select('sign_off_id'));
        }
        if ($filter->search !== '') {
            $all->where(function (Builder $either) use ($filter): void {
                $rules = StoredRule::query()->where('name', 'like', '%'.addcslashes($filter->search, '\\%_').'%')->select('id');
                $either->whereIn('rule_id', $rules);
                foreach ($this->inSight->schema()->types as $type) {
                    if ($filter->type === null || $filter->type === $type->name) {
                        $either->orWhere(fn (Builder $of): Builder => $of->where('record_type', $type->name)
                            ->whereIn('record_id', $this->records($type, $filter->search)));
                    }
                }
            });
        }

        return $all;
    }

    /** Ids of the records that have the words, of those that whoever asks sees, in texts that they see. */
    private function records(RecordType $type, string $search): QueryBuilder
    {
        $records = DB::table(StoredRecord::tableOf($type->name).' as t');
        $seen = $this->inSight->where($type, 't');
        if ($seen !== null) {
            $records->whereRaw($seen);
        }

        return $this->search->inList($type, $search)->narrow($records)->select('t.id');
    }

    /** @return Builder<SignOffSeat> somebody's */
    private static function seats(Person $me, SeatState ...$states): Builder
    {
        return SignOffSeat::query()->where('person_id', $me->id)->whereIn('state', $states);
    }
}
