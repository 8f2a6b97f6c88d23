<?php

declare(strict_types=1);

namespace App\Http\Slips;

use App\Models\People\Person;
use App\Models\Slips\SlipTurnRow;
use App\Models\Slips\StoredSlip;
use App\Store\Access\AccessScope;
use App\Store\Access\SeenTexts;
use App\Store\People\PeopleStore;
use App\Store\Slips\SlipLines;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;
use VividLedger\Record\Value;
use VividLedger\Slip\SlipStatus;
use VividLedger\Slip\TurnState;

/** Reads slips as the screens show them. */
final readonly class Slips
{
    public function __construct(private SchemaStore $schemas, private PeopleStore $names, private SlipLines $lines,
        private AccessScope $inSight, private SeenTexts $texts)
    {
    }

    /** @return list<SlipResource> the latest first */
    public function listed(string $box, Person $me, int $limit): array
    {
        return $this->resources($this->box($box, $me)->latest('id')->limit($limit)->get(), $me);
    }

    public function count(string $box, Person $me): int
    {
        return $this->box($box, $me)->count();
    }

    /** @return list<SlipResource> of one record, the latest first */
    public function ofRecord(string $type, int $id, Person $me): array
    {
        return $this->resources(StoredSlip::query()->with(['turns', 'rule'])->where('record_type', $type)->where('record_id', $id)
            ->latest('id')->limit(20)->get(), $me);
    }

    public function one(StoredSlip $slip, Person $me): SlipResource
    {
        return $this->resources(new Collection([$slip->load(['turns', 'rule'])]), $me)[0];
    }

    /** @return Builder<StoredSlip> */
    private function box(string $box, Person $me): Builder
    {
        $slips = StoredSlip::query()->with(['turns', 'rule']);

        return match ($box) {
            'mine' => $slips->where('status', SlipStatus::Waiting)->whereHas('turns', static fn (Builder $turns): Builder => $turns
                ->where('person_id', $me->id)->where('state', TurnState::Waiting)),
            'waiting' => $this->inSight->about($slips)->where('status', SlipStatus::Waiting),
            default => $this->inSight->about($slips),
        };
    }

    /**
     * @param  Collection<int, StoredSlip>  $slips
     * @return list<SlipResource>
     */
    private function resources(Collection $slips, Person $me): array
    {
        foreach ($slips->groupBy('record_type') as $type => $ofType) {
            $this->names->rememberTitles((string) $type, array_values($ofType->pluck('record_id')->all()));
        }

        return array_values($slips->map(fn (StoredSlip $slip): SlipResource => $this->resource($slip, $me))->all());
    }

    private function resource(StoredSlip $slip, Person $me): SlipResource
    {
        $at = static fn (?\DateTimeImmutable $moment): ?string => $moment === null ? null : Value::instantText($moment);

        return new SlipResource(
            id: $slip->id, subject: $this->texts->shown($slip->subject, $slip->tells), recordType: $slip->record_type,
            recordId: $slip->record_id,
            recordNumber: $this->schemas->schema()->type($slip->record_type)?->numberOf($slip->record_id) ?? '',
            recordTitle: $this->names->title($slip->record_type, $slip->record_id) ?? '', rule: $slip->rule->name ?? '',
            status: $slip->status->value, statusSaid: $slip->status->said(), sentAt: Value::instantText($slip->started_at),
            endedAt: $at($slip->ended_at), nextAt: $at($slip->wakes_at),
            turns: array_values($slip->turns->map(static fn (SlipTurnRow $turn): SlipTurnResource => new SlipTurnResource(
                name: $turn->name, state: $turn->state->value, sentAt: Value::instantText($turn->sent_at), due: $at($turn->due_at),
                nudged: $turn->nudged, endedAt: $at($turn->ended_at),
            ))->all()),
            answers: array_map(fn (array $one): SlipAnswerResource => new SlipAnswerResource($one['asked'], $this->texts->shown(
                $one['said'], isset($one['path']) ? ["{$slip->record_type}:{$slip->record_id}:{$one['path']}"] : [],
            )), $slip->said ?? []),
            isMine: $slip->turns->contains(static fn (SlipTurnRow $turn): bool => $turn->person_id === $me->id
            && $turn->state === TurnState::Waiting),
            hasList: $this->lines->line($slip)?->plan()->next !== null,
        );
    }
}
