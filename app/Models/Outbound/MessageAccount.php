<?php

declare(strict_types=1);

namespace App\Models\Outbound;

use App\Models\LedgerModel;

/**
 * On whose account a message stands besides that of its record.
 *
 * @property int $message_id
 * @property string $record_type
 * @property int $record_id
 */
final class MessageAccount extends LedgerModel
{
    protected $table = 'message_accounts';

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'message_id' => 'integer',
        'record_id' => 'integer',
    ];
}
