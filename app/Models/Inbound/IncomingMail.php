<?php

declare(strict_types=1);

namespace App\Models\Inbound;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;
use App\Models\Outbound\MailKind;

/**
 * A mail that came in, once: what it says, not how it came. Its headers and what it quotes can hold what lets somebody act.
 *
 * @property int $id
 * @property string $message_id
 * @property \DateTimeImmutable $at
 * @property string $sender
 * @property string $subject
 * @property MailKind $kind
 * @property ?string $record_type
 * @property ?int $record_id
 * @property ?int $answers_id  the message of ours that it answers
 * @property string $trouble
 * @property string $text  their own words
 */
final class IncomingMail extends LedgerModel
{
    protected $table = 'incoming_mails';

    protected $casts = [
        'at' => Instant::class,
        'kind' => MailKind::class,
        'record_id' => 'integer',
        'answers_id' => 'integer',
    ];
}
