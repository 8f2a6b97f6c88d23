<?php

declare(strict_types=1);

namespace VividLedger\Record;

/**
 * A record at one moment. Values are normalised (see Value), null is empty, and every field of the type has a key.
 */
final readonly class Record
{
    /**
     * @param  int  $version  counts the saves, from 1
     * @param  array<string, string|int|bool|null>  $values  by field name
     */
    public function __construct(
        public string $type,
        public int $id,
        public int $version,
        public array $values,
    ) {
    }

    public function value(string $field): string|int|bool|null
    {
        return $this->values[$field] ?? null;
    }

    /** @param  array<string, string|int|bool|null>  $values those that differ */
    public function with(array $values): self
    {
        return new self($this->type, $this->id, $this->version, array_replace($this->values, $values));
    }
}
