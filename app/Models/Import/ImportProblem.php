<?php

declare(strict_types=1);

namespace App\Models\Import;

use App\Models\LedgerModel;

/**
 * What is wrong in a cell of a file.
 *
 * @property int $id
 * @property int $job_id
 * @property int $row as a table program counts, the heads in the first
 * @property string $field empty where it is about the whole row
 * @property string $said
 * @property string $cell what stands there
 */
final class ImportProblem extends LedgerModel
{
    protected $table = 'import_problems';

    protected $casts = ['job_id' => 'integer', 'row' => 'integer'];
}
