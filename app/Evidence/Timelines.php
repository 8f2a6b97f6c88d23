<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Models\Entry;
use App\Models\FieldChange;
use App\Models\StoredRecord;
use App\Store\SchemaStore;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use VividLedger\Record\Record;

/** Records as they stood after an entry, each with its whole past in memory, so that asking again costs no query. */
final class Timelines
{
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
        $record = StoredRecord::read($type, $id);
        $rows = Entry::rows()->from(Entry::tableName(), 'e')
            ->leftJoin(FieldChange::tableName().' as h', static fn (JoinClause $field): JoinClause => $field->on('h.entry_id', '=', 'e.id')
                ->on('h.record_type', '=', 'e.record_type')->on('h.record_id', '=', 'e.record_id'))
            ->where('e.record_type', $typeName)->where('e.record_id', $id)->orderByDesc('e.id')->orderByDesc('h.id')
            ->get(['e.id', 'e.kind', 'e.version', 'h.field', 'h.before'])->all();
        if ($rows === []) {
            return [[0], [$record]];
        }
        $entries = [];
        $records = [];
        $values = $record->values ?? array_fill_keys(array_keys($type->fields), null);
        $lives = $record !== null;
        // Backwards through what came later, as the one thing that is certain is how the record is now.
        foreach ($rows as $index => $past) {
            if ($index === 0 || $rows[$index - 1]->id !== $past->id) {
                $lives = $past->kind === 'deleted' ? false : ($entries === [] ? $lives : true);
                $entries[] = (int) $past->id;
                $records[] = $lives ? new Record($typeName, $id, (int) $past->version, $values) : null;
            }
            if ($past->field !== null && isset($type->fields[$past->field])) {
                $values[$past->field] = json_decode((string) $past->before, true, 4, JSON_THROW_ON_ERROR);
            }
        }
        $last = $rows[count($rows) - 1];
        if ($last->kind !== 'created') {
            // It was there before anything was recorded of it.
            $entries[] = 0;
            $records[] = new Record($typeName, $id, 0, $values);
        }

        return [array_reverse($entries), array_reverse($records)];
    }
}
