<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\People\Directory;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** What a text is read against: the record type its words are about, and the company. */
final readonly class Scope
{
    public function __construct(
        public Schema $schema,
        public Directory $directory,
        public RecordType $type,
        public \DateTimeZone $zone,
    ) {
    }

    public function about(?RecordType $type): self
    {
        return $type === null ? $this : new self($this->schema, $this->directory, $type, $this->zone);
    }

    public function context(): Context
    {
        return new Context($this->schema, $this->directory, $this->type, $this->zone);
    }
}
