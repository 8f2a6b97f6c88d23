<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Models\Records\StoredRecord;
use App\Store\Actor;
use App\Store\Records\RowToSave;
use App\Store\Records\SavedRow;
use App\Store\Records\SaveMany;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Choice;
use VividLedger\Schema\RecordType;

/** What it would come to if a record went on to another stage: tried on paper, with the rules that are in force. */
final readonly class StagesAhead
{
    public function __construct(private SaveMany $save)
    {
    }

    /** @return list<StageAheadResource> in the order of the stages, without the one it is at */
    public function of(RecordType $type, int $id, Actor $actor): array
    {
        $stage = $type->stage();
        if ($stage === null) {
            return [];
        }
        $now = StoredRecord::rowsOf($type)->where('id', $id)->value($stage->name);
        $ahead = array_values(array_filter(
            $stage->choices,
            static fn (Choice $choice): bool => ! $choice->isRetired && $choice->value !== $now,
        ));
        $rows = array_map(static fn (Choice $choice): RowToSave => new RowToSave($id, [$stage->name => $choice->value]), $ahead);

        return array_map(
            static fn (Choice $choice, SavedRow $row): StageAheadResource => new StageAheadResource(
                $choice->value, $choice->label, $choice->closes, $row->said,
                array_values(array_unique(array_map(static fn (Rule $rule): string => $rule->name, $row->fired))),
            ),
            $ahead,
            $this->save->tried($type, $rows, $actor),
        );
    }
}
