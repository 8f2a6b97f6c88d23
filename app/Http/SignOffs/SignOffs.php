<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Models\People\Person;
use App\Models\SignOffs\StoredSignOff;
use App\Store\Access\SeenTexts;
use App\Store\People\PeopleStore;
use App\Store\SignOffs\SignOffFilter;
use App\Store\SignOffs\SignOffQuery;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Record\Value;
use VividLedger\Rights\Duty;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\Seat;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\SignOff\Talk;

/** Reads sign-offs, with the names of all they mention. */
final readonly class SignOffs
{
    private const WITH = ['seats', 'rule:id,name'];

    public function __construct(
        private SchemaStore $schemas,
        private PeopleStore $names,
        private SeenTexts $texts,
        private SignOffQuery $query,
    ) {
    }

    /** @return list<SignOffResource> in the order of the box */
    public function listed(string $box, Person $me, SignOffFilter $filter, ?int $after, int $most): array
    {
        return $this->read($this->query->page($box, $me, $filter, $after, $most), $me);
    }

    public function count(string $box, Person $me, SignOffFilter $filter = new SignOffFilter): int
    {
        return $this->query->count($box, $me, $filter);
    }

    public function one(StoredSignOff $signOff, Person $me): SignOffResource
    {
        return $this->resources([$signOff->load(self::WITH)], $me)[0];
    }

    /**
     * Those about one record, the latest first.
     *
     * @return list<SignOffResource>
     */
    public function ofRecord(string $type, int $id, Person $me): array
    {
        return $this->read(StoredSignOff::query()->where('record_type', $type)->where('record_id', $id)->latest('id')->limit(20), $me);
    }

    /**
     * @param  list<StoredSignOff>  $rows
     * @return list<SignOffResource>
     */
    public function resources(array $rows, Person $me): array
    {
        $this->remember($rows);

        return array_map(fn (StoredSignOff $row): SignOffResource => $this->resource($row, $me), $rows);
    }

    /**
     * @param  Builder<StoredSignOff>  $signOffs
     * @return list<SignOffResource>
     */
    private function read(Builder $signOffs, Person $me): array
    {
        $rows = $signOffs->with(self::WITH)->get();
        foreach ($rows->groupBy('record_type') as $type => $of) {
            $this->names->rememberTitles($type, array_values($of->pluck('record_id')->all()));
        }

        return $this->resources(array_values($rows->all()), $me);
    }

    /** @param  list<StoredSignOff>  $rows  whose people are fetched together */
    private function remember(array $rows): void
    {
        $people = [];
        foreach ($rows as $row) {
            $people[] = $row->asker_id;
            foreach ($row->seats as $seat) {
                array_push($people, $seat->person_id, $seat->for_id);
            }
        }
        $this->names->rememberPeople(array_values(array_filter($people, is_int(...))));
    }

    private function resource(StoredSignOff $row, Person $me): SignOffResource
    {
        $number = $this->schemas->schema()->type($row->record_type)?->numberOf($row->record_id) ?? '';
        // Taken from its row once: a cast column is cast at each look.
        $signOff = $row->signOff();
        $isOpen = $signOff->status === SignOffStatus::Waiting;
        $mayMove = $isOpen && ($signOff->asker === $me->id || $me->may(Duty::WriteRules));

        return new SignOffResource(
            id: $row->id, status: $signOff->status->value, why: $this->texts->shown($row->why, $row->tells),
            recordType: $row->record_type, recordId: $row->record_id, recordNumber: $number,
            recordTitle: $this->names->title($row->record_type, $row->record_id) ?? $number, asker: $this->name($signOff->asker),
            rule: $row->rule_id, ruleName: $row->rule->name ?? '', entry: $row->entry_id, step: $signOff->step + 1,
            needed: $signOff->needed, startedAt: Value::instantText($signOff->startedAt), endedAt: self::iso($signOff->endedAt),
            seats: array_map($this->seat(...), $signOff->seats, array_keys($signOff->seats)), mine: $signOff->waitsFor($me->id) !== null,
            mayWithdraw: $mayMove, mayAnswerBack: $mayMove, locks: $isOpen && $row->hold !== Hold::Nothing && ! $row->released,
        );
    }

    private function seat(Seat $seat, int $place): SeatResource
    {
        return new SeatResource(
            step: $seat->step + 1, personId: $seat->person, person: $this->name($seat->person) ?? '', state: $seat->state->value,
            askedAt: Value::instantText($seat->askedAt), dueAt: self::iso($seat->due), at: self::iso($seat->at), comment: $seat->comment,
            byItself: $seat->byItself, place: $place, standsFor: $this->name($seat->for), asksBack: $seat->asksBack(),
            talk: array_map(fn (Talk $talk): TalkResource => new TalkResource(
                $this->name($talk->by) ?? '',
                Value::instantText($talk->at),
                $talk->text,
            ), $seat->talk),
        );
    }

    private function name(?int $person): ?string
    {
        return $person === null ? null : $this->names->person($person)?->name;
    }

    private static function iso(?\DateTimeImmutable $at): ?string
    {
        return $at === null ? null : Value::instantText($at);
    }
}
