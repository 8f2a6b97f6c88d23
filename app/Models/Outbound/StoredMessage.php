<?php

declare(strict_types=1);

namespace App\Models\Outbound;

use App\Models\Casts\Instant;
use App\Models\Casts\Json;
use App\Models\Casts\Lines;
use App\Models\LedgerModel;
use App\Models\Rules\StoredRule;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use VividLedger\Message\Channel;

/**
 * A message on its way out, or gone.
 *
 * @phpstan-type Named array{name: string, address: string, language?: string, record?: array{string, int}}
 * @phpstan-type Recipients array{to: list<Named>, cc: list<Named>, replyTo: ?Named}
 *
 * @property int $id
 * @property list<string> $tells  what its text shows, each a type, the id of a record, and a field of it
 * @property string $key
 * @property Channel $channel
 * @property string $record_type
 * @property int $record_id
 * @property ?int $rule_id
 * @property int $entry_id
 * @property Recipients $recipients
 * @property ?int $person_id
 * @property ?int $sign_off_id the sign-off it is about; no rule wrote it
 * @property ?int $seat_id  of whoever decides by it
 * @property ?int $seat_round  the how-manieth time they are asked
 * @property ?int $slip_turn_id whose turn it is to answer the slip it brings
 * @property ?int $slip_link  the how-manieth link it brings them
 * @property bool $may_unsubscribe  whether whoever gets it can say that they want no more
 * @property string $subject
 * @property string $html
 * @property string $text
 * @property MessageStatus $status
 * @property \DateTimeImmutable $created_at
 * @property ?\DateTimeImmutable $next_try_at
 * @property ?\DateTimeImmutable $leased_until
 * @property int $tries
 * @property string $trouble
 * @property ?\DateTimeImmutable $done_at
 * @property ?string $leased_by
 * @property int $unsure
 * @property-read ?StoredRule $rule
 */
final class StoredMessage extends LedgerModel
{
    protected $table = 'messages';

    protected $casts = [
        'tells' => Lines::class,
        'channel' => Channel::class,
        'record_id' => 'integer',
        'rule_id' => 'integer',
        'entry_id' => 'integer',
        'recipients' => Json::class,
        'person_id' => 'integer',
        'sign_off_id' => 'integer',
        'seat_id' => 'integer',
        'seat_round' => 'integer',
        'slip_turn_id' => 'integer',
        'slip_link' => 'integer',
        'may_unsubscribe' => 'boolean',
        'status' => MessageStatus::class,
        'created_at' => Instant::class,
        'next_try_at' => Instant::class,
        'leased_until' => Instant::class,
        'tries' => 'integer',
        'done_at' => Instant::class,
        'unsure' => 'integer',
    ];

    /** Whether an address is among those that it was sent to. */
    public function wentTo(string $address): bool
    {
        $to = array_column([...$this->recipients['to'] ?? [], ...$this->recipients['cc'] ?? []], 'address');

        return in_array(mb_strtolower($address), array_map(mb_strtolower(...), $to), true);
    }

    /**
     * The record of somebody it reaches, as what a text tells of is noted; nothing where that is none.
     *
     * @param  Named  $one
     * @return list<string>
     */
    public static function recordOf(array $one): array
    {
        return isset($one['record']) ? ["{$one['record'][0]}:{$one['record'][1]}:"] : [];
    }

    /** @return list<string> all that it tells of, and whom it reaches */
    public function showsAndReaches(): array
    {
        $all = [...$this->recipients['to'], ...$this->recipients['cc'], ...array_filter([$this->recipients['replyTo']])];

        return array_merge($this->tells, ...array_map(self::recordOf(...), $all));
    }

    /** @return BelongsTo<StoredRule, $this> */
    public function rule(): BelongsTo
    {
        return $this->belongsTo(StoredRule::class, 'rule_id', 'id');
    }

    /**
     * What stands on one record.
     *
     * @param  Builder<static>  $query
     * @return Builder<static>
     */
    public function scopeAbout(Builder $query, string $type, int $id): Builder
    {
        return $query->where('record_type', $type)->where('record_id', $id);
    }

    /**
     * Those whose reader may write back: no notes in the application, and none that ask for an answer by a link of their own.
     *
     * @param  \Illuminate\Contracts\Database\Query\Builder  $messages
     * @param  string  $as  the name of the table there
     */
    public static function thatMayBeAnswered(mixed $messages, string $as): void
    {
        $messages->where("{$as}.channel", '<>', Channel::App)->whereNull("{$as}.sign_off_id")->whereNull("{$as}.slip_turn_id");
    }
}
