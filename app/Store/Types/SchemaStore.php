<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Models\Types\RecordTypeDefinition;
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
            foreach (RecordTypeDefinition::query()->orderBy('position')->get() as $row) {
                $types[$row->name] = Definition::read($row->name, $row->definition);
            }
            $this->schema = new Schema($types);
        }

        return $this->schema;
    }

    /**
     * Adds a record type: its metadata and its table.
     *
     * @param  array<string, mixed>  $definition
     */
    public function add(string $name, array $definition): RecordType
    {
        $type = Definition::read($name, $definition);
        TypeTable::create($this->db, $type);
        RecordTypeDefinition::query()->create([
            'name' => $name, 'position' => RecordTypeDefinition::query()->count(), 'definition' => $definition,
        ]);
        $this->schema = null;

        return $type;
    }

    /** What is known is read again: somebody has changed it. */
    public function forget(): void
    {
        $this->schema = null;
    }
}
