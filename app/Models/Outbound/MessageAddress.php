<?php

declare(strict_types=1);

namespace App\Models\Outbound;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use VividLedger\Message\Address;

/**
 * To whom a message went and when, for the caps over all rules.
 *
 * @property string $address
 * @property \DateTimeImmutable $at
 * @property int $message_id
 */
final class MessageAddress extends LedgerModel
{
    protected $table = 'message_addresses';

    private const LENGTH = 190;

    /** What an address is looked up by. */
    public static function key(Address $address): string
    {
        return mb_substr($address->key(), 0, self::LENGTH);
    }

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'at' => Instant::class,
        'message_id' => 'integer',
    ];
}
