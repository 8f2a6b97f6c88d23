<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Models\Columns;
use App\Models\Records\StoredRecord;
use App\Store\DomainError;
use App\Store\Sql\Batch;
use VividLedger\Formula\ComputedFields;
use VividLedger\Schema\RecordType;

/** A formula field that is new to records there are: it is reckoned for each. No rule answers, for nobody changed anything. */
final class FormulaFill
{
    private const PIECE = 1000;

    /** @throws DomainError when the formula cannot stand in the field */
    public static function mustBeSound(RecordType $type, string $name): void
    {
        $trouble = ComputedFields::trouble($type, $type->fields[$name]);
        if ($trouble !== null) {
            throw DomainError::at('/formula', $trouble);
        }
    }

    public static function fill(RecordType $type, string $name): void
    {
        StoredRecord::rowsOf($type)->chunkById(self::PIECE, static function (mixed $rows) use ($type, $name): void {
            $filled = [];
            foreach ($rows as $row) {
                $record = Columns::record($type, $row);
                $value = ComputedFields::with($type, $record->values)[$name];
                $filled[] = ['id' => $record->id, $name => Columns::column($type->fields[$name], $value)];
            }
            // The rows are there, so this only ever updates.
            Batch::insert(StoredRecord::of($type), $filled, [$name]);
        });
    }
}
