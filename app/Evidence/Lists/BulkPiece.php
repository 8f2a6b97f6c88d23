<?php

declare(strict_types=1);

namespace App\Evidence\Lists;

use App\Models\Lists\BulkJob;

/** Does a piece of work on many records, in one transaction with the note of how far it came: cut short, it has not happened. */
interface BulkPiece
{
    /** @return int how many rows were gone through; 0 when none is left */
    public function piece(BulkJob $job): int;
}
