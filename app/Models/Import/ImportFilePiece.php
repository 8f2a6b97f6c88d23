<?php

declare(strict_types=1);

namespace App\Models\Import;

use App\Models\LedgerModel;

/**
 * A piece of a file that becomes records.
 *
 * @property int $job_id
 * @property int $place
 * @property string $content
 */
final class ImportFilePiece extends LedgerModel
{
    protected $table = 'import_pieces';

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = ['job_id' => 'integer', 'place' => 'integer'];
}
