<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\StoredRecord;
use Illuminate\Database\Query\Builder;
use VividLedger\Condition\Condition;
use VividLedger\Schema\RecordType;

/** The records of a type that meet a condition, as a query over their table as "t". */
final class Matching
{
    public static function query(RecordType|string $type, ?Condition $condition, \DateTimeImmutable $now, \DateTimeZone $zone): Builder
    {
        $writer = new SqlQueryWriter($now, $zone);
        $where = $condition?->query($writer);
        $table = StoredRecord::tableOf(is_string($type) ? $type : $type->name);
        // A condition is compiled to SQL text, joins and all, which the builder takes as it is.
        $rows = StoredRecord::rowsOf($type)->fromRaw("`{$table}` t{$writer->joins()}")->select('t.*');

        return $where === null ? $rows : $rows->whereRaw($where->text, $where->bindings);
    }
}
