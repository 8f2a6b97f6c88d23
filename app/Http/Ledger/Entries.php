<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Outbound\MessageAccount;
use App\Models\Outbound\StoredMessage;
use App\Models\Records\MergedRecord;
use App\Models\Records\StoredRecord;
use App\Models\Timing\ClockTurn;
use App\Store\Access\AccessScope;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Fold;

/** Reads entries of the ledger, with the names of all they mention. */
final readonly class Entries
{
    public const A_PAGE = 50;

    /** What happened at the doors, and to people: for those who look after that. */
    public const DOORS = [
        'person_invited', 'person_joined', 'signed_in', 'signed_out', 'password_reset', 'password_changed', 'second_factor_on',
        'second_factor_off', 'token_made', 'token_ended',
    ];

    /** So many are read at a time where words are looked for, and so many at most before whoever asks is asked to go on. */
    private const LOOKED_AT_ONCE = 250;

    private const MOST_LOOKED_AT = 3_000;

    private const ANSWERABLE = ['created', 'changed', 'deleted', 'comment', 'file', 'reply', 'task_done', 'by_hand', 'hook_brought'];

    public function __construct(
        private EntryResources $resources,
        private AccessScope $inSight,
    ) {
    }

    /**
     * @param  Builder<Entry>  $entries
     * @return list<EntryResource> the newest first
     */
    public function read(Builder $entries, int $limit = self::A_PAGE, bool $oldestFirst = false): array
    {
        $rows = $entries->with(['actor', 'rule', 'fields'])->orderBy('id', $oldestFirst ? 'asc' : 'desc')->limit($limit)->get();
        $this->resources->remember(array_values($rows->all()));

        return array_values(array_map($this->resources->of(...), $rows->all()));
    }

    /**
     * The account of a record: its own entries, those of records that were merged into it, and those that sent a letter to it.
     *
     * @return list<EntryResource>
     */
    public function ofRecord(string $type, int $id, int $before): array
    {
        // Each of the two is read through its own index.
        $sent = MessageAccount::rows()->from(MessageAccount::tableName(), 'a')->join(
            StoredMessage::tableName().' as m',
            'm.id',
            '=',
            'a.message_id',
        )
            ->where('a.record_type', $type)->where('a.record_id', $id)->where('m.entry_id', '<', $before)
            ->orderByDesc('m.entry_id')->limit(self::A_PAGE)->select('m.entry_id as id');
        $of = static fn (int $one): \Illuminate\Database\Query\Builder => Entry::query()->about($type, $one)->where('id', '<', $before)
            ->latest('id')->limit(self::A_PAGE)->toBase()->select('id');
        $ids = $of($id);
        $merged = $this->merged($type, $id);
        foreach ([...array_map($of, $merged), $sent] as $more) {
            $ids->union($more);
        }
        $ids = $ids->orderByDesc('id')->limit(self::A_PAGE)->pluck('id');

        // Whoever sees the record sees what has become part of it.
        return $this->read(Entry::query()->whereIn('id', $ids->all())->where(fn (Builder $either): Builder => $either
            ->where(fn (Builder $seen): Builder => $this->inSight->about($seen))
            ->orWhere(static fn (Builder $part): Builder => $part->where('record_type', $type)->whereIn('record_id', $merged))));
    }

    /** @return list<int> records that have become part of one; one that was brought back stands by itself again */
    private function merged(string $type, int $id): array
    {
        $merged = MergedRecord::within($type, $id);
        $back = $merged === [] ? [] : Columns::ints(StoredRecord::rowsOf($type)->whereIn('id', $merged)->pluck('id'));

        return array_values(array_diff($merged, $back));
    }

    /**
     * A page of the ledger.
     *
     * @param  ?int  $before  only those with a lower number
     * @param  ?int  $after  only those with a higher number, the lowest first
     * @param  bool  $withDoors  whether who asks may see what happened at the doors
     * @return list<EntryResource>
     */
    public function page(LedgerAsked $asked, ?int $before, ?int $after, bool $withDoors): array
    {
        $entries = $asked->narrow($this->seen($withDoors))
            ->when($before !== null, static fn (Builder $entries): Builder => $entries->where('id', '<', $before))
            ->when($after !== null, static fn (Builder $entries): Builder => $entries->where('id', '>', $after));

        return $this->read($entries, oldestFirst: $after !== null);
    }

    /**
     * Those of which what they say, as whoever asks reads it, has every word. What is kept from somebody is found by nobody.
     *
     * @param  ?int  $before  only those with a lower number
     * @return array{list<EntryResource>, ?int} and before which number it is gone on with; null where that were all
     */
    public function saying(string $text, LedgerAsked $asked, ?int $before, bool $withDoors): array
    {
        $words = preg_split('/\s+/u', Fold::text(trim($text)), -1, PREG_SPLIT_NO_EMPTY) ?: [];
        [$found, $looked] = [[], 0];
        do {
            $some = $this->read($asked->narrow($this->seen($withDoors))->when($before !== null,
                static fn (Builder $entries): Builder => $entries->where('id', '<', $before)), self::LOOKED_AT_ONCE);
            foreach ($some as $entry) {
                $before = $entry->number;
                $says = Fold::text(implode(' ', [
                    $entry->headInLedger->strong, $entry->headInLedger->rest, $entry->detail, $entry->who, $entry->recordNumber,
                    $entry->recordTitle, $entry->ruleName,
                ]));
                if (array_filter($words, static fn (string $word): bool => ! str_contains($says, $word)) === []) {
                    $found[] = $entry;
                }
                if (count($found) === self::A_PAGE) {
                    return [$found, $before];
                }
            }
            $looked += count($some);
        } while (count($some) === self::LOOKED_AT_ONCE && $looked < self::MOST_LOOKED_AT);

        return [$found, count($some) === self::LOOKED_AT_ONCE ? $before : null];
    }

    /** What happened last to a record until a moment, of what rules can answer. */
    public function lastAnswerable(string $type, int $id, \DateTimeImmutable $until): ?EntryResource
    {
        return $this->read(
            Entry::query()->about($type, $id)->where('at', '<=', Columns::moment($until))->whereIn('kind', self::ANSWERABLE),
            1,
        )[0] ?? null;
    }

    /** @return list<EntryResource> what an entry led to, the oldest first */
    public function causedBy(int $number): array
    {
        return array_reverse($this->read($this->inSight->about(Entry::query())->where('cause_id', $number)));
    }

    /** @return list<EntryResource> what happened last besides edits of records */
    public function latest(int $limit, bool $withDoors): array
    {
        return $this->read($this->seen($withDoors)->whereNotIn('kind', ['changed', 'created']), $limit);
    }

    /** @return list<EntryResource> what rules did while the clock was turned */
    public function during(ClockTurn $turn, int $limit): array
    {
        return $this->read($this->inSight->about(Entry::query())->where('id', '>', $turn->first_entry)->where('via', CauseKind::Rule)
            ->where('kind', '<>', 'changed')
            ->where('at', '>', Columns::moment($turn->from_at))->where('at', '<=', Columns::moment($turn->to_at)), $limit);
    }

    /** @return Builder<Entry> */
    private function seen(bool $withDoors): Builder
    {
        return $this->inSight->about(Entry::query(), orNone: true)
            ->when(! $withDoors, static fn (Builder $entries): Builder => $entries->whereNotIn('kind', self::DOORS));
    }

    public function one(int $number, bool $withDoors = true): ?EntryResource
    {
        return $this->read($this->seen($withDoors)->whereKey($number), 1)[0] ?? null;
    }

    /** @return list<EntryResource> what led to an entry, the nearest first */
    public function causesOf(EntryResource $entry): array
    {
        $causes = [];
        while ($entry->cause !== null && ($entry = $this->one($entry->cause)) !== null) {
            $causes[] = $entry;
        }

        return $causes;
    }
}
