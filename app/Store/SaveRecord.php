<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\FixedClock;
use VividLedger\Record\Change;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/**
 * The one way a record is saved. In one transaction: the row is locked, the engine decides what follows, and record,
 * field history, guard keys, entries and tasks are written. Whatever ends it early leaves nothing behind.
 */
final readonly class SaveRecord
{
    private const TRIES = 3;

    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private Engine $engine,
        private StoredRuleBook $rules,
        private RecordInput $input,
        private LedgerWriter $ledger,
        private StaleVersion $stale,
        private HouseClock $clock,
    ) {
    }

    /**
     * @param  array<array-key, mixed>  $input  raw values by field name
     *
     * @throws Refused
     */
    public function create(RecordType $type, array $input, Actor $actor): Saved
    {
        $given = $this->input->checked($type, $input, null);

        return $this->db->transaction(function () use ($type, $given, $actor): Saved {
            $now = $this->clock->now();
            $stamp = Value::instantText($now);
            $values = [];
            foreach ($type->fields as $name => $field) {
                $values[$name] = $given[$name] ?? ($field->type === FieldType::Tick ? false : null);
            }
            $values = array_replace($values, ['created_at' => $stamp, 'created_by' => $actor->personId, 'updated_at' => $stamp, 'updated_by' => $actor->personId]);
            // The row goes in first: the rules that answer its creation need its id.
            [$id] = Batch::insertForIds($this->db, TypeTable::name($type->name), [$this->columns($type, $values)]);
            $record = new Record($type->name, $id, 1, $values);
            $change = new Change(null, $record, $actor->personId, $now, $actor->via);
            $decision = $this->decide($change);
            $this->store($type, $record, $decision->after ?? $record);

            return new Saved($decision->after ?? $record, $decision, ...$this->ledger->write($type, $change, $decision, $actor));
        }, self::TRIES);
    }

    /**
     * @param  int  $version  of the record as the person saw it
     * @param  array<array-key, mixed>  $input  raw values by field name; fields not named stay as they are
     *
     * @throws Refused
     */
    public function change(RecordType $type, int $id, int $version, array $input, Actor $actor): Saved
    {
        return $this->db->transaction(function () use ($type, $id, $version, $input, $actor): Saved {
            $row = $this->db->selectOne('SELECT * FROM `'.TypeTable::name($type->name).'` WHERE id = ? FOR UPDATE', [$id]);
            if ($row === null) {
                throw new Refused('not_found', "There is no {$type->inSentence()} {$type->numberOf($id)}.", 404);
            }
            $before = Columns::record($type, $row);
            if ($before->version !== $version) {
                throw $this->stale->refusal($type, $before, $version);
            }
            $given = $this->input->checked($type, $input, $before);
            if ($given === []) {
                return new Saved($before, new Decision($before), null);
            }
            $now = $this->clock->now();
            $stamps = ['updated_at' => Value::instantText($now), 'updated_by' => $actor->personId];
            $after = new Record($before->type, $id, $version + 1, array_replace($before->values, $given, $stamps));
            $change = new Change($before, $after, $actor->personId, $now, $actor->via);
            $decision = $this->decide($change);
            $this->store($type, $before, $decision->after ?? $after);

            return new Saved($decision->after ?? $after, $decision, ...$this->ledger->write($type, $change, $decision, $actor));
        }, self::TRIES);
    }

    private function decide(Change $change): Decision
    {
        return $this->engine->decide($change, $this->rules, new StoredFacts($this->db, $this->schemas), new FixedClock($change->at));
    }

    private function store(RecordType $type, Record $before, Record $after): void
    {
        $columns = [];
        foreach ($this->columns($type, $after->values) as $name => $column) {
            if ($after->values[$name] !== $before->values[$name]) {
                $columns[$name] = $column;
            }
        }
        if ($columns === []) {
            return;
        }
        $columns['version'] = $after->version;
        $sets = implode(', ', array_map(static fn (string $name): string => "`{$name}` = ?", array_keys($columns)));
        $this->db->update('UPDATE `'.TypeTable::name($type->name)."` SET {$sets} WHERE id = ?", [...array_values($columns), $before->id]);
    }

    /**
     * @param  array<string, string|int|bool|null>  $values
     * @return array<string, string|int|null>
     */
    private function columns(RecordType $type, array $values): array
    {
        $columns = [];
        foreach ($type->fields as $name => $field) {
            $columns[$name] = Columns::column($field, $values[$name] ?? null);
        }

        return $columns;
    }
}
