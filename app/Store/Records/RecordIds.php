<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Records\StoredRecord;
use Illuminate\Support\Facades\DB;
use VividLedger\Schema\RecordType;

/** Ids for many new records with one question to their sequence. */
final class RecordIds
{
    /** @return list<int> so many */
    public function take(RecordType $type, int $count): array
    {
        if ($count === 0) {
            return [];
        }
        $sequence = StoredRecord::sequenceOf($type->name);

        return array_values(array_map(
            static fn (mixed $row): int => (int) ((array) $row)['id'],
            DB::selectFromWriteConnection("SELECT NEXTVAL(`{$sequence}`) AS id FROM seq_1_to_{$count}"),
        ));
    }
}
