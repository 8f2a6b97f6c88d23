<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/**
 * What the models have in common: moments are kept by the domain, and what is written is named column by column.
 *
 * @phpstan-consistent-constructor
 */
abstract class LedgerModel extends Model
{
    public $timestamps = false;

    protected $guarded = [];

    /** @var array<class-string<self>, string> */
    private static array $tables = [];

    /** The rows as the database gives them, for paths on which making objects of them would be felt. */
    public static function rows(): Builder
    {
        return DB::table(static::tableName());
    }

    public static function tableName(): string
    {
        return self::$tables[static::class] ??= (new static)->getTable();
    }
}
