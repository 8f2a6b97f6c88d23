<?php

declare(strict_types=1);

namespace App\Models\SignOffs;

use App\Models\Casts\Instant;
use App\Models\Columns;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use VividLedger\Record\Value;
use VividLedger\SignOff\Seat;
use VividLedger\SignOff\SeatState;
use VividLedger\SignOff\Talk;

/**
 * Somebody's part in a sign-off.
 *
 * @property int $id
 * @property int $sign_off_id
 * @property int $place
 * @property int $step
 * @property int $person_id
 * @property \DateTimeImmutable $asked_at
 * @property ?\DateTimeImmutable $due_at
 * @property int $round
 * @property int $reminded
 * @property SeatState $state
 * @property ?\DateTimeImmutable $at
 * @property string $comment
 * @property bool $by_itself
 * @property ?int $for_id
 * @property ?\DateTimeImmutable $held_at
 * @property ?list<array{by: int, at: string, text: string}> $talk
 * @property ?int $task_id
 * @property-read Person $person
 * @property-read StoredSignOff $signOff
 */
final class SignOffSeat extends LedgerModel
{
    protected $table = 'sign_off_seats';

    protected $casts = [
        'sign_off_id' => 'integer',
        'place' => 'integer',
        'step' => 'integer',
        'person_id' => 'integer',
        'asked_at' => Instant::class,
        'due_at' => Instant::class,
        'round' => 'integer',
        'reminded' => 'integer',
        'state' => SeatState::class,
        'at' => Instant::class,
        'by_itself' => 'boolean',
        'for_id' => 'integer',
        'held_at' => Instant::class,
        'talk' => 'array',
        'task_id' => 'integer',
    ];

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'person_id', 'id');
    }

    /** @return BelongsTo<StoredSignOff, $this> */
    public function signOff(): BelongsTo
    {
        return $this->belongsTo(StoredSignOff::class, 'sign_off_id', 'id');
    }

    /** @return array<string, mixed> a row */
    public static function row(int $signOff, int $place, Seat $seat): array
    {
        $moment = static fn (?\DateTimeImmutable $at): ?string => $at === null ? null : Columns::moment($at);

        return [
            'sign_off_id' => $signOff, 'place' => $place, 'step' => $seat->step, 'person_id' => $seat->person,
            'asked_at' => $moment($seat->askedAt), 'due_at' => $moment($seat->due), 'round' => $seat->round, 'reminded' => $seat->reminded,
            'state' => $seat->state, 'at' => $moment($seat->at), 'comment' => $seat->comment, 'by_itself' => $seat->byItself,
            'for_id' => $seat->for, 'held_at' => $moment($seat->heldAt), 'talk' => $seat->talk === [] ? null : Columns::json(array_map(
                static fn (Talk $talk): array => ['by' => $talk->by, 'at' => Value::instantText($talk->at), 'text' => $talk->text],
                $seat->talk,
            )),
        ];
    }

    public function seat(): Seat
    {
        return new Seat(
            step: $this->step, person: $this->person_id, askedAt: $this->asked_at, due: $this->due_at, round: $this->round,
            reminded: $this->reminded, state: $this->state, at: $this->at, comment: $this->comment, byItself: $this->by_itself,
            for: $this->for_id, heldAt: $this->held_at,
            talk: array_map(
                static fn (array $talk): Talk => new Talk($talk['by'], new \DateTimeImmutable($talk['at']), $talk['text']),
                $this->talk ?? [],
            ),
        );
    }
}
