<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Records\FieldChange;
use App\Models\Records\StoredRecord;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;

/** Records as they stood after an entry, each with its whole past in memory, so that asking again costs no query. */
final class Timelines
{
    private const BIRTHS = ['created', 'restored'];

    private const DEATH = 'deleted';

    private const WRITES = ['created', 'restored', 'changed', 'fired'];

    /** More are forgotten again, the oldest first. */
    private const MOST = 5000;

    /** @var array<string, array{list<int>, list<?Record>}> entries and the record after each, by type and id */
    private array $known = [];

    /** @var array<string, array<int, list<int>>> those that refer to a record or ever did, by type and field of theirs */
    private array $referring = [];

    public function __construct(private readonly SchemaStore $schemas)
    {
    }

    /**
     * Records of a type whose reference named another one, now or at some time.
     *
     * @return list<int> in order
     */
    public function referring(string $type, string $by, int $to): array
    {
        return ($this->referring["{$type}.{$by}"] ??= $this->readReferring($type, $by))[$to] ?? [];
    }

    public function record(string $type, int $id, int $entry): ?Record
    {
        [$entries, $records] = $this->known["{$type}:{$id}"] ??= $this->read($type, $id);
        [$low, $high] = [0, count($entries)];
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($entries[$middle] <= $entry) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low === 0 ? null : $records[$low - 1];
    }

    /** @return array<int, list<int>> */
    private function readReferring(string $type, string $by): array
    {
        $once = static fn (string $column): Builder => FieldChange::rows()->where('record_type', $type)->where('field', $by)
            ->where($column, '<>', 'null')->select('record_id as id')->selectRaw("CAST(`{$column}` AS UNSIGNED) AS named");
        $pairs = StoredRecord::rowsOf($type)->whereNotNull($by)->select(['id', "{$by} as named"])
            ->union($once('before'))->union($once('after'))->orderBy('id')->get();
        $referring = [];
        foreach ($pairs as $pair) {
            $referring[(int) $pair->named][] = (int) $pair->id;
        }

        return $referring;
    }

    /** @return array{list<int>, list<?Record>} */
    private function read(string $typeName, int $id): array
    {
        if (count($this->known) >= self::MOST) {
            $this->known = array_slice($this->known, intdiv(self::MOST, 2), null, true);
        }
        $type = $this->schemas->schema()->type($typeName);
        if ($type === null) {
            return [[], []];
        }
        $now = RecordSql::record($type, $id);
        $rows = Entry::rows()->from(Entry::tableName(), 'e')
            ->leftJoin(FieldChange::tableName().' as h', static fn (JoinClause $field): JoinClause => $field->on('h.entry_id', '=', 'e.id')
                ->on('h.record_type', '=', 'e.record_type')->on('h.record_id', '=', 'e.record_id'))
            ->where('e.record_type', $typeName)->where('e.record_id', $id)->orderByDesc('e.id')->orderByDesc('h.id')
            ->get(['e.id', 'e.kind', 'e.version', 'e.at', 'e.actor_id', 'h.field', 'h.before'])->all();
        $values = $now->values ?? array_map(
            static fn (Field $field): ?bool => $field->type === FieldType::Tick ? false : null,
            $type->fields,
        );
        $entries = [];
        // Backwards through what came later, as the one thing that is certain is how the record is now.
        foreach ($rows as $index => $past) {
            if ($index === 0 || $rows[$index - 1]->id !== $past->id) {
                $entries[] = [$past, $values];
            }
            if ($past->field !== null && isset($type->fields[$past->field])) {
                $values[$past->field] = json_decode((string) $past->before, true, 4, JSON_THROW_ON_ERROR);
            }
        }

        return $this->lives(new Record($typeName, $id, $now->version ?? 0, $values), $now === null, array_reverse($entries));
    }

    /**
     * @param  Record  $first  as it was before anything was recorded of it, in the version of today
     * @param  list<array{\stdClass, array<string, string|int|bool|null>}>  $entries  each with the values after it, the oldest first
     * @return array{list<int>, list<?Record>}
     */
    private function lives(Record $first, bool $isGone, array $entries): array
    {
        $turns = array_values(array_filter(
            array_map(static fn (array $entry): string => $entry[0]->kind, $entries),
            static fn (string $kind): bool => $kind === self::DEATH || in_array($kind, self::BIRTHS, true),
        ));
        $lives = $turns === [] ? ! $isGone : $turns[0] === self::DEATH;
        [$numbers, $records, $stamps, $version] = [[0], [$lives ? $first : null], [], 0];
        foreach ($entries as [$entry, $values]) {
            $isBirth = in_array($entry->kind, self::BIRTHS, true);
            $lives = $entry->kind === self::DEATH ? false : $lives || $isBirth;
            $version = max($version, (int) $entry->version);
            // The stamps of a record that is gone come from its entries.
            foreach ($isGone ? ['created' => $isBirth
                && ! isset($stamps['created_at']), 'updated' => in_array($entry->kind, self::WRITES, true)] : [] as $stamp => $isOne) {
                if ($isOne) {
                    $stamps["{$stamp}_at"] = Columns::iso($entry->at);
                    $stamps["{$stamp}_by"] = $entry->actor_id === null ? null : (int) $entry->actor_id;
                }
            }
            $numbers[] = (int) $entry->id;
            $records[] = $lives ? new Record($first->type, $first->id, $version ?: $first->version, array_replace($values, $stamps)) : null;
        }

        return [$numbers, $records];
    }
}
