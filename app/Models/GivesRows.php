<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** The rows of a model's table as the database gives them, for paths on which making objects of them would be felt. */
trait GivesRows
{
    /** @var array<class-string, string> */
    private static array $tables = [];

    public static function rows(): Builder
    {
        return DB::table(static::tableName());
    }

    public static function tableName(): string
    {
        return self::$tables[static::class] ??= (new static)->getTable();
    }
}
