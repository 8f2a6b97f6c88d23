<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What the models have in common: moments are kept by the domain, and what is written is named column by column.
 *
 * @phpstan-consistent-constructor
 */
abstract class LedgerModel extends Model
{
    use GivesRows;

    public $timestamps = false;

    protected $guarded = [];
}
