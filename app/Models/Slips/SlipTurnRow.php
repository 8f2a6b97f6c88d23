<?php

declare(strict_types=1);

namespace App\Models\Slips;

use App\Models\Casts\Instant;
use App\Models\Columns;
use App\Models\LedgerModel;
use App\Models\People\Person;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use VividLedger\Message\Address;
use VividLedger\Record\Language;
use VividLedger\Slip\SlipTurn;
use VividLedger\Slip\TurnState;

/**
 * Somebody's turn to answer a slip. Of the link in their letters only a hash is kept.
 *
 * @property int $id
 * @property int $slip_id
 * @property int $place
 * @property string $name
 * @property ?array{name: string, address: string, person: ?int, record: ?array{string, int}, language: string} $mail
 * @property ?array{name: string, address: string, person: ?int, record: ?array{string, int}, language: string} $text
 * @property ?int $person_id
 * @property string $candidate_type
 * @property ?int $candidate_id
 * @property TurnState $state
 * @property \DateTimeImmutable $sent_at
 * @property ?\DateTimeImmutable $due_at
 * @property int $nudged
 * @property ?\DateTimeImmutable $ended_at
 * @property int $link  the how-manieth link they have
 * @property ?string $token_hash
 * @property ?array<array-key, string> $draft  answers that are not sent yet, as they are typed
 * @property-read StoredSlip $slip
 * @property-read ?Person $person
 */
final class SlipTurnRow extends LedgerModel
{
    protected $table = 'slip_turns';

    protected $casts = [
        'slip_id' => 'integer',
        'place' => 'integer',
        'mail' => 'array',
        'text' => 'array',
        'person_id' => 'integer',
        'candidate_id' => 'integer',
        'state' => TurnState::class,
        'sent_at' => Instant::class,
        'due_at' => Instant::class,
        'nudged' => 'integer',
        'ended_at' => Instant::class,
        'link' => 'integer',
        'draft' => 'array',
    ];

    /** @return BelongsTo<StoredSlip, $this> */
    public function slip(): BelongsTo
    {
        return $this->belongsTo(StoredSlip::class, 'slip_id', 'id');
    }

    /** @return BelongsTo<Person, $this> of a colleague who is asked */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class, 'person_id', 'id');
    }

    public function turn(): SlipTurn
    {
        return new SlipTurn(
            name: $this->name, mail: self::address($this->mail), text: self::address($this->text), candidate: $this->candidate_id,
            sentAt: $this->sent_at, due: $this->due_at, nudged: $this->nudged, state: $this->state, endedAt: $this->ended_at,
        );
    }

    /**
     * @param  string  $of  name of the record type of those the list leads to; empty for people
     * @return array<string, mixed>
     */
    public static function row(int $slip, int $place, SlipTurn $turn, string $of): array
    {
        $at = static fn (?\DateTimeImmutable $moment): ?string => $moment === null ? null : Columns::moment($moment);

        return [
            'slip_id' => $slip, 'place' => $place, 'name' => mb_substr($turn->name, 0, 190), 'mail' => self::kept($turn->mail),
            'text' => self::kept($turn->text), 'person_id' => $turn->mail->personId ?? $turn->text?->personId,
            'candidate_type' => $turn->candidate === null ? '' : $of, 'candidate_id' => $turn->candidate, 'state' => $turn->state,
            'sent_at' => $at($turn->sentAt), 'due_at' => $at($turn->due), 'nudged' => $turn->nudged, 'ended_at' => $at($turn->endedAt),
        ];
    }

    /** In which language whoever is asked reads. */
    public function language(): Language
    {
        return Language::tryFrom($this->mail['language'] ?? $this->text['language'] ?? '') ?? Language::English;
    }

    private static function kept(?Address $address): ?string
    {
        return $address === null ? null : Columns::json([
            'name' => $address->name, 'address' => $address->address, 'person' => $address->personId, 'record' => $address->record,
            'language' => $address->language->value,
        ]);
    }

    /** @param  ?array{name: string, address: string, person: ?int, record: ?array{string, int}, language: string}  $kept */
    private static function address(?array $kept): ?Address
    {
        return $kept === null ? null : new Address(
            $kept['name'], $kept['address'], $kept['person'], $kept['record'], Language::tryFrom($kept['language']) ?? Language::English,
        );
    }
}
