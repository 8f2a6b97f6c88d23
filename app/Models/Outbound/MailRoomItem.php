<?php

declare(strict_types=1);

namespace App\Models\Outbound;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;

/**
 * What the mail room took in, as it came over the wire.
 *
 * @property int $id
 * @property string $kind
 * @property string $message_id
 * @property \DateTimeImmutable $at
 * @property string $sender
 * @property string $recipients
 * @property string $subject
 * @property string $text
 * @property string $raw
 */
final class MailRoomItem extends LedgerModel
{
    protected $table = 'mail_room';

    protected $casts = [
        'at' => Instant::class,
    ];
}
