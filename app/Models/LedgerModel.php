<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Query\Builder;

/**
 * What the models have in common: moments are kept by the domain, and what is written is named column by column.
 *
 * @phpstan-consistent-constructor
 */
abstract class LedgerModel extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    /** The rows as the database gives them, for paths on which making objects of them would be felt. */
    public static function rows(): Builder
    {
        return static::query()->toBase();
    }

    public static function tableName(): string
    {
        return (new static)->getTable();
    }
}
