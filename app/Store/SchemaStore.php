<?php

declare(strict_types=1);

namespace App\Store;

use Illuminate\Database\Connection;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** The record types of the company, read once for each request or process. */
final class SchemaStore
{
    private ?Schema $schema = null;

    public function __construct(private readonly Connection $db)
    {
    }

    public function schema(): Schema
    {
        if ($this->schema === null) {
            $types = [];
            foreach ($this->db->select('SELECT name, definition FROM record_types ORDER BY position') as $row) {
                $types[$row->name] = Definition::read($row->name, json_decode($row->definition, true, 512, JSON_THROW_ON_ERROR));
            }
            $this->schema = new Schema($types);
        }

        return $this->schema;
    }

    /** Adds a record type: its metadata and its table. */
    public function add(string $name, array $definition): RecordType
    {
        $type = Definition::read($name, $definition);
        TypeTable::create($this->db, $type);
        $this->db->table('record_types')->insert([
            'name' => $name,
            'position' => $this->db->table('record_types')->count(),
            'definition' => json_encode($definition, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
        ]);
        $this->schema = null;

        return $type;
    }
}
