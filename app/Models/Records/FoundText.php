<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\LedgerModel;

/**
 * What a record is found by.
 *
 * @property int $id
 * @property string $record_type
 * @property int $record_id
 * @property string $title
 * @property string $body its other texts of a line
 * @property bool $is_new whether its words are still to be taken up
 */
final class FoundText extends LedgerModel
{
    protected $table = 'found_texts';

    protected $casts = ['record_id' => 'integer', 'is_new' => 'boolean'];
}
