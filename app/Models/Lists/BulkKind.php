<?php

declare(strict_types=1);

namespace App\Models\Lists;

/** What is done with many records. */
enum BulkKind: string
{
    case Change = 'change';
    case Import = 'import';
}
