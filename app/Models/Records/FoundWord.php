<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\LedgerModel;

/**
 * A word that stands in what records are called.
 *
 * @property string $word
 * @property int $letters
 * @property int $records in how many it was found, about
 */
final class FoundWord extends LedgerModel
{
    protected $table = 'found_words';

    public $incrementing = false;

    protected $primaryKey = 'word';

    protected $casts = ['letters' => 'integer', 'records' => 'integer'];
}
