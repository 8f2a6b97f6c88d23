<?php

declare(strict_types=1);

namespace App\Models\Ledger;

use App\Models\LedgerModel;

/**
 * The hash of an entry and of all before it.
 *
 * @property int $entry_id
 * @property string $hash 32 bytes
 */
final class EntrySeal extends LedgerModel
{
    protected $table = 'entry_seals';

    public $incrementing = false;

    protected $primaryKey = 'entry_id';

    protected $casts = ['entry_id' => 'integer'];
}
