<?php

declare(strict_types=1);

namespace App\Http\Records;

use App\Models\Ledger\Entry;
use App\Models\Records\StoredRecord;
use App\Store\Access\AccessScope;
use App\Store\Records\RecordHistory;
use Illuminate\Database\Eloquent\Builder as EloquentBuilder;
use Illuminate\Database\Query\Builder;
use VividLedger\Record\Value;
use VividLedger\Rights\Act;
use VividLedger\Schema\RecordType;

/** The records of a type that were deleted, of those that whoever asks could see. */
final readonly class Bin
{
    private const MOST = 50;

    public function __construct(private RecordHistory $history, private AccessScope $inSight)
    {
    }

    /** @param  ?int  $before  only those of entries with a lower number */
    public function of(RecordType $type, ?int $before = null): BinPage
    {
        $rows = StoredRecord::tableOf($type->name);
        $entries = Entry::query()->with('actor')->where('record_type', $type->name)->where('kind', 'deleted')
            // Brought back, or deleted once more, it is not what it was.
            ->whereNotExists(static fn (Builder $there): Builder => $there->from($rows)->whereColumn("{$rows}.id", 'entries.record_id'))
            ->whereNotExists(static fn (Builder $later): Builder => $later->from('entries', 'l')
                ->whereColumn('l.record_id', 'entries.record_id')->whereColumn('l.record_type', 'entries.record_type')
                ->where('l.kind', 'deleted')->whereColumn('l.id', '>', 'entries.id'))
            ->when($before !== null, static fn (EloquentBuilder $some): EloquentBuilder => $some->where('entries.id', '<', $before))
            ->latest('id')->limit(self::MOST)->get();
        $gone = [];
        foreach ($entries as $entry) {
            $record = $this->history->beforeDeletion($type, (int) $entry->record_id);
            if ($record === null || ! $this->inSight->sight()->covers(Act::Read, $type, $record)) {
                continue;
            }
            $title = (string) $record->value($type->title);
            $number = $type->numberOf($record->id);
            $gone[] = new GoneResource($record->id, $number, $title === '' ? $number : $title, Value::instantText($entry->at),
                $entry->actor->name ?? '');
        }

        return new BinPage($gone, $entries->count() < self::MOST ? null : $entries->last()?->id);
    }
}
