<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Condition\Condition;
use VividLedger\Record\Record;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Finds records: by a condition, by words, sorted, a page at a time. */
final readonly class RecordList
{
    public function __construct(private Connection $db, private HouseClock $clock, private Company $company)
    {
    }

    /**
     * @param  ?string  $sort  a field's name; null for the newest first
     * @param  bool  $counted  counting reads everything that fits, a page only itself
     * @return array{list<Record>, ?int} the page, and how many there are in all when they were counted
     */
    public function page(RecordType $type, ?Condition $condition, string $search, ?string $sort, bool $descending, int $page, int $perPage, bool $counted = true): array
    {
        $writer = new SqlQueryWriter($this->clock->now(), $this->company->zone());
        $where = $writer->all([...($condition === null ? [] : [$condition->query($writer)]), ...($search === '' ? [] : [$this->search($type, $search)])]);
        $from = '`'.TypeTable::name($type->name)."` t{$writer->joins()} WHERE {$where->text}";
        $direction = $descending ? 'DESC' : 'ASC';
        $order = $sort === null ? 't.id DESC' : "t.`{$sort}` {$direction}, t.id {$direction}";
        $offset = ($page - 1) * $perPage;
        $rows = $this->db->select("SELECT t.* FROM {$from} ORDER BY {$order} LIMIT {$perPage} OFFSET {$offset}", $where->bindings);
        $total = match (true) {
            $page === 1 && count($rows) < $perPage => count($rows),
            $counted => (int) $this->db->scalar("SELECT COUNT(*) FROM {$from}", $where->bindings),
            default => null,
        };

        return [array_map(static fn (object $row): Record => Columns::record($type, $row), $rows), $total];
    }

    /** How many records meet a condition. */
    public function count(RecordType $type, Condition $condition): int
    {
        $writer = new SqlQueryWriter($this->clock->now(), $this->company->zone());
        $where = $condition->query($writer);

        return (int) $this->db->scalar('SELECT COUNT(*) FROM `'.TypeTable::name($type->name)."` t{$writer->joins()} WHERE {$where->text}", $where->bindings);
    }

    /** Every word has to be found in a text of the record; or the whole is its number. */
    private function search(RecordType $type, string $search): Sql
    {
        $id = $type->idOf($search);
        if ($id !== null) {
            return new Sql('t.id = ?', [$id]);
        }
        $texts = [];
        foreach ($type->fields as $field) {
            if ($field->type->isText() && $field->type !== FieldType::LongText) {
                $texts[] = "t.`{$field->name}` LIKE ?";
            }
        }
        $parts = [];
        $bindings = [];
        foreach (preg_split('/\s+/u', $search, -1, PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $parts[] = '('.implode(' OR ', $texts).')';
            $like = '%'.addcslashes($word, '\\%_').'%';
            array_push($bindings, ...array_fill(0, count($texts), $like));
        }

        return new Sql($parts === [] ? 'TRUE' : implode(' AND ', $parts), $bindings);
    }
}
