<?php

declare(strict_types=1);

namespace App\Store\Sql;

use App\Models\Records\StoredRecord;
use App\Store\Access\AccessScope;
use Illuminate\Database\Query\Builder;
use VividLedger\Condition\Condition;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;

/** The records of a type that meet a condition, as a query over their table as "t". */
final class Matching
{
    /**
     * @param  ?AccessScope  $inSight  for whom; null for the house, which sees all
     * @param  ?string  $by  the index to go by; null for whichever the database finds best
     * @param  list<Path>  $also  what is read besides over references, each as a column of its name
     */
    public static function query(
        RecordType|string $type, ?Condition $condition, \DateTimeImmutable $now, \DateTimeZone $zone, ?AccessScope $inSight = null,
        ?string $by = null, array $also = [],
    ): Builder {
        $writer = new SqlQueryWriter($now, $zone, $inSight);
        $beside = array_map(static fn (Path $path): string => "{$writer->column($path)->text} AS `{$path->name()}`", $also);
        $where = $condition?->query($writer);
        $table = StoredRecord::tableOf(is_string($type) ? $type : $type->name);
        // A condition is compiled to SQL text, joins and all, which the builder takes as it is.
        $rows = StoredRecord::rowsOf($type)->fromRaw("`{$table}` t".($by === null ? '' : " FORCE INDEX (`{$by}`)").$writer->joins())
            ->select('t.*');
        foreach ($beside as $column) {
            $rows->selectRaw($column);
        }

        $seen = $inSight?->where($type, 't');
        if ($seen !== null) {
            $rows->whereRaw($seen);
        }

        return $where === null ? $rows : $rows->whereRaw($where->text, $where->bindings);
    }
}
