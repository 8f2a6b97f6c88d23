<?php

declare(strict_types=1);

namespace App\Models\Ledger;

use App\Models\LedgerModel;

/**
 * That an entry was reversed, and by which.
 *
 * @property int $entry_id
 * @property int $by_entry
 */
final class ReversedEntry extends LedgerModel
{
    protected $table = 'reversals';

    public $incrementing = false;

    protected $primaryKey = 'entry_id';

    protected $casts = [
        'entry_id' => 'integer',
        'by_entry' => 'integer',
    ];
}
