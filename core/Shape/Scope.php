<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use VividLedger\House\Directory;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** What a text is read against: the record type its words are about, and the company. */
final readonly class Scope
{
    /** @var \ArrayObject<string, mixed> what was looked up once for this reading */
    private \ArrayObject $known;

    /**
     * @param  ?\ArrayObject<string, mixed>  $known
     * @param  ?Field  $field  that is compared or set at the place at hand
     */
    public function __construct(
        public Schema $schema,
        public Directory $directory,
        public RecordType $type,
        public \DateTimeZone $zone,
        ?\ArrayObject $known = null,
        public ?Field $field = null,
    ) {
        $this->known = $known ?? new \ArrayObject;
    }

    public function about(?RecordType $type): self
    {
        return $type === null || $type === $this->type ? $this
            : new self(
                schema: $this->schema, directory: $this->directory, type: $type, zone: $this->zone, known: $this->known,
                field: $this->field,
            );
    }

    public function with(Field $field): self
    {
        return new self(
            schema: $this->schema, directory: $this->directory, type: $this->type, zone: $this->zone, known: $this->known, field: $field,
        );
    }

    public function context(): Context
    {
        return new Context($this->schema, $this->directory, $this->type, $this->zone);
    }

    /**
     * What is made once for the record type at hand.
     *
     * @template T
     *
     * @param  \Closure(): T  $make
     * @return T
     */
    public function once(string $what, \Closure $make): mixed
    {
        $key = "{$this->type->name}:{$what}";
        if (! $this->known->offsetExists($key)) {
            $this->known[$key] = $make();
        }
        /** @var T $made */
        $made = $this->known[$key];

        return $made;
    }
}
