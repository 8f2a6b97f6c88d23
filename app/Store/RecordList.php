<?php

declare(strict_types=1);

namespace App\Store;

use App\Models\Columns;
use App\Store\Access\InSight;
use App\Store\Sql\Matching;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use VividLedger\Condition\Condition;
use VividLedger\Record\Record;
use VividLedger\Rights\Act;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Finds records that whoever asks may see: by a condition, by words, sorted, a page at a time. */
final readonly class RecordList
{
    /** A page that ends beyond is looked for in another way. */
    private const NEAR = 500;

    private const MOST_LOOKED_AT = 20_000;

    public function __construct(private HouseClock $clock, private Company $company, private InSight $inSight)
    {
    }

    /**
     * @param  ?string  $sort  a field's name; null for the newest first
     * @param  bool  $counted  counting reads everything that fits, a page only itself
     * @return array{list<Record>, ?int} the page, and how many there are in all when they were counted
     */
    public function page(
        RecordType $type, ?Condition $condition, string $search, ?string $sort, bool $descending, int $page, int $perPage,
        bool $counted = true,
    ): array {
        $from = $this->found($type, $condition, $search);
        $direction = $descending ? 'desc' : 'asc';
        $rows = $this->inOrder($type, $condition, $search, $sort, $direction, $page, $perPage) ?? (clone $from)
            ->when($sort !== null, static fn (Builder $rows): Builder => $rows->orderBy("t.{$sort}", $direction))
            ->orderBy('t.id', $sort === null ? 'desc' : $direction)->forPage($page, $perPage)->get();
        $total = match (true) {
            $page === 1 && $rows->count() < $perPage => $rows->count(),
            $counted => $from->count(),
            default => null,
        };

        return [array_values($rows->map(static fn (object $row): Record => Columns::record($type, $row))->all()), $total];
    }

    /**
     * For whoever sees some of very many records: going through them in the order of the list finds a page soon, unless next to none is
     * theirs; then it is given up, and those that are theirs are sorted. The database would always do the latter.
     *
     * @return ?Collection<int, \stdClass> null where it was given up, or is not worth trying
     */
    private function inOrder(
        RecordType $type, ?Condition $condition, string $search, ?string $sort, string $direction, int $page, int $perPage,
    ): ?Collection {
        // One person's are there in the order of their numbers already.
        $isOnes = $sort === null && count($this->inSight->sight()->owners(Act::Read, $type->name) ?? []) === 1;
        $index = $isOnes ? TypeTable::BELONGING : TypeTable::orderedBy($type, $sort);
        if ($index === null || $search !== '' || $page * $perPage > self::NEAR || $this->inSight->where($type, 't') === null) {
            return null;
        }
        $rows = Matching::query($type, $condition, $this->clock->now(), $this->company->zone(), $this->inSight, $index)
            ->when($sort !== null, static fn (Builder $rows): Builder => $rows->orderBy("t.{$sort}", $direction))
            ->orderBy('t.id', $sort === null ? 'desc' : $direction)->forPage($page, $perPage)
            ->lock('ROWS EXAMINED '.self::MOST_LOOKED_AT)->get();

        return $rows->count() < $perPage ? null : $rows;
    }

    /** The rows that meet a condition and have every word, as "t", in no order. */
    public function found(RecordType $type, ?Condition $condition, string $search): Builder
    {
        $from = $this->matching($type, $condition);
        if ($search !== '') {
            $this->search($from, $type, $search);
        }

        return $from;
    }

    /** How many records meet a condition. */
    public function count(RecordType $type, Condition $condition): int
    {
        return $this->matching($type, $condition)->count();
    }

    /**
     * The same for many conditions in one statement.
     *
     * @param  array<int, array{RecordType, Condition}>  $asked
     * @return array<int, int> by the keys of what was asked
     */
    public function counts(array $asked): array
    {
        [$counts, $now, $zone] = [[], $this->clock->now(), $this->company->zone()];
        foreach ($asked as $key => [$type, $condition]) {
            $counts[] = Matching::query($type, $condition, $now, $zone, $this->inSight)->select([])
                ->selectRaw('? AS asked, COUNT(*) AS n', [$key]);
        }
        $first = array_shift($counts);
        foreach ($counts as $count) {
            $first?->unionAll($count);
        }

        return $first === null ? [] : array_map(intval(...), $first->pluck('n', 'asked')->all());
    }

    /** @return array<array-key, int> how many records have each value of a field */
    public function countBy(RecordType $type, string $field): array
    {
        return $this->matching($type, null)->whereNotNull("t.{$field}")->groupBy("t.{$field}")->select([])->selectRaw(
            "t.`{$field}` AS value, COUNT(*) AS n",
        )->pluck('n', 'value')
            ->map(static fn (mixed $n): int => (int) $n)->all();
    }

    private function matching(RecordType $type, ?Condition $condition): Builder
    {
        return Matching::query($type, $condition, $this->clock->now(), $this->company->zone(), $this->inSight);
    }

    /** Every word has to be found in a text of the record; or the whole is its number. */
    private function search(Builder $records, RecordType $type, string $search): void
    {
        $id = $type->idOf($search);
        if ($id !== null) {
            $records->where('t.id', $id);

            return;
        }
        $texts = array_filter(
            $type->fields,
            static fn (Field $field): bool => $field->type->isText() && $field->type !== FieldType::LongText,
        );
        foreach (preg_split('/\s+/u', $search, -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $columns = array_map(static fn (string $name): string => "t.{$name}", array_keys($texts));
            $records->whereAny($columns, 'like', '%'.addcslashes($word, '\\%_').'%');
        }
    }
}
