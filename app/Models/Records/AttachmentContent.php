<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\LedgerModel;

/**
 * What is in a file.
 *
 * @property int $file_id
 * @property string $content
 */
final class AttachmentContent extends LedgerModel
{
    protected $table = 'file_contents';

    public $incrementing = false;

    protected $primaryKey = 'file_id';

    protected $casts = [
        'file_id' => 'integer',
    ];
}
