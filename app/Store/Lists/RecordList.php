<?php

declare(strict_types=1);

namespace App\Store\Lists;

use App\Models\Columns;
use App\Store\Access\AccessScope;
use App\Store\HouseClock;
use App\Store\Setup\Company;
use App\Store\Sql\Matching;
use App\Store\Types\TypeTable;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\QueryException;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use VividLedger\Condition\Condition;
use VividLedger\Listing\Column;
use VividLedger\Listing\Sort;
use VividLedger\Record\Record;
use VividLedger\Rights\Act;
use VividLedger\Schema\Field;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;

/** Finds records that whoever asks may see: by a condition, by words, sorted, a page at a time. */
final readonly class RecordList
{
    /** A page that ends beyond is looked for in another way. */
    private const NEAR = 500;

    private const MOST_LOOKED_AT = 20_000;

    private const NO_SUCH_INDEX = 1176;

    /** Grouped by more than so many values, nobody reads it. */
    private const MOST_GROUPS = 500;

    public function __construct(private HouseClock $clock, private Company $company, private AccessScope $inSight,
        private RecordSearch $finding)
    {
    }

    /**
     * @param  list<Sort>  $sorts  none for the newest first
     * @param  bool  $counted  counting reads everything that fits, a page only itself
     * @param  list<Path>  $beside  what is read over references for each record
     * @return array{list<Record>, ?int, array<int, array<string, string|int|bool|null>>} the page; how many there are in all when they were
     *     counted; and what was read beside, by record and name of the path
     */
    public function page(
        RecordType $type, ?Condition $condition, string $search, array $sorts, int $page, int $perPage, bool $counted = true,
        array $beside = [],
    ): array {
        $searched = $this->searched($type, $search);
        $over = Column::far(array_map(static fn (Sort $sort): Column => $sort->by, $sorts));
        $from = $this->fitting($type, $condition, $searched, [...$over, ...$beside]);
        $rows = $this->inOrder($type, $condition, $searched, $sorts, $page, $perPage, $beside)
            ?? ($page * $perPage > self::NEAR ? $this->farOn($type, clone $from, $sorts, $page, $perPage) : null)
            ?? $this->sorted(clone $from, $sorts)->forPage($page, $perPage)->get();
        $total = match (true) {
            $page === 1 && $rows->count() < $perPage => $rows->count(),
            $counted => $this->fitting($type, $condition, $searched)->count(),
            default => null,
        };
        $cells = [];
        foreach ($beside === [] ? [] : $rows as $row) {
            foreach ($beside as $path) {
                $cells[(int) $row->id][$path->name()] = Columns::value($path->field, ((array) $row)[$path->name()]);
            }
        }

        return [array_values($rows->map(static fn (object $row): Record => Columns::record($type, $row))->all()), $total, $cells];
    }

    /**
     * How many records there are for each value, and what their numbers add up to.
     *
     * @param  list<Field>  $sums
     * @return list<array{value: string|int|bool|null, count: int, sums: array<string, string>}>
     */
    public function groups(RecordType $type, ?Condition $condition, string $search, Path $by, array $sums): array
    {
        $column = "t.`{$by->field->name}`";
        if ($by->hops !== []) {
            $column = "`{$by->name()}`";
            $rows = DB::query()->fromSub($this->found($type, $condition, $search, [$by]), 't');
        } else {
            $rows = $this->found($type, $condition, $search);
        }
        $made = array_map(static fn (Field $field): string => "COALESCE(SUM(t.`{$field->name}`), 0) AS `sum_{$field->name}`", $sums);
        $rows->columns = null;
        $groups = [];
        $rows->selectRaw(implode(', ', ["{$column} AS value, COUNT(*) AS n", ...$made]))->groupByRaw($column)->limit(self::MOST_GROUPS);
        foreach ($rows->get() as $row) {
            $added = [];
            foreach ($sums as $field) {
                $added[$field->name] = (string) ((array) $row)["sum_{$field->name}"];
            }
            $groups[] = ['value' => Columns::value($by->field, $row->value), 'count' => (int) $row->n, 'sums' => $added];
        }

        return $groups;
    }

    /**
     * Where only some of very many records fit: going through them in the order of the list finds a page soon, unless next to none does;
     * then it is given up, and those that fit are sorted. The database would always do the latter.
     *
     * @param  list<Sort>  $sorts
     * @param  list<Path>  $beside
     * @return ?Collection<int, \stdClass> null where it was given up, or is not worth trying
     */
    private function inOrder(
        RecordType $type, ?Condition $condition, ?SearchFilter $searched, array $sorts, int $page, int $perPage, array $beside,
    ): ?Collection {
        $first = $sorts[0]->by->of ?? null;
        // One person's are there in the order of their numbers already.
        $isOnes = $sorts === [] && count($this->inSight->sight()->owners(Act::Read, $type->name) ?? []) === 1;
        $index = $isOnes ? TypeTable::BELONGING : TypeTable::orderedBy($type, $first);
        $isWhole = $condition === null && $searched === null && $this->inSight->where($type, 't') === null;
        if ($index === null || $isWhole || count($sorts) > 1 || $page * $perPage > self::NEAR
            || $searched?->isLookedUp === true) {
            return null;
        }
        $matching = Matching::query(
            type: $type, condition: $condition, now: $this->clock->now(), zone: $this->company->zone(), inSight: $this->inSight,
            by: $index, also: $beside,
        );
        try {
            $rows = $this->sorted($searched?->narrow($matching) ?? $matching, $sorts)->forPage($page, $perPage)
                ->lock('ROWS EXAMINED '.self::MOST_LOOKED_AT)->get();
        } catch (QueryException $without) {
            // A type with very many fields has no index for the last of them.
            return ($without->errorInfo[1] ?? null) === self::NO_SUCH_INDEX ? null : throw $without;
        }

        return $rows->count() < $perPage ? null : $rows;
    }

    /**
     * A page far on: its numbers are found in an index alone, and only its own rows are read.
     *
     * @param  list<Sort>  $sorts
     * @return Collection<int, \stdClass>
     */
    private function farOn(RecordType $type, Builder $from, array $sorts, int $page, int $perPage): Collection
    {
        $ids = (clone $from)->select('t.id');
        $ids = Columns::ints($this->sorted($ids, $sorts)->forPage($page, $perPage)->pluck('id'));
        $at = array_flip($ids);

        return $from->whereIn('t.id', $ids)->get()->sortBy(static fn (\stdClass $row): int => $at[(int) $row->id])->values();
    }

    /** @param  list<Sort>  $sorts */
    private function sorted(Builder $rows, array $sorts): Builder
    {
        foreach ($sorts as $sort) {
            $column = match (true) {
                $sort->by->path === null => $sort->by->of === Column::SINCE ? 't.'.TypeTable::SINCE : 't.id',
                $sort->by->path->hops === [] => "t.{$sort->by->path->field->name}",
                default => null,
            };
            $direction = $sort->descending ? 'desc' : 'asc';
            $column === null ? $rows->orderByRaw("`{$sort->by->of}` {$direction}") : $rows->orderBy($column, $direction);
        }

        return $rows->orderBy('t.id', $sorts === [] || end($sorts)->descending ? 'desc' : 'asc');
    }

    /**
     * The rows that meet a condition and have every word, as "t", in no order.
     *
     * @param  list<Path>  $beside  what is read over references besides
     */
    public function found(RecordType $type, ?Condition $condition, string $search, array $beside = []): Builder
    {
        return $this->fitting($type, $condition, $this->searched($type, $search), $beside);
    }

    private function searched(RecordType $type, string $search): ?SearchFilter
    {
        return $search === '' ? null : $this->finding->inList($type, $search);
    }

    /** @param  list<Path>  $beside */
    private function fitting(RecordType $type, ?Condition $condition, ?SearchFilter $searched, array $beside = []): Builder
    {
        $paths = [];
        foreach ($beside as $path) {
            $paths[$path->name()] = $path;
        }
        $from = $this->matching($type, $condition, array_values($paths));

        return $searched?->narrow($from) ?? $from;
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

    /** @param  list<Path>  $beside */
    private function matching(RecordType $type, ?Condition $condition, array $beside = []): Builder
    {
        return Matching::query(
            type: $type, condition: $condition, now: $this->clock->now(), zone: $this->company->zone(), inSight: $this->inSight, by: null,
            also: $beside,
        );
    }
}
