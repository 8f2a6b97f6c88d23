<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** A field as seen from a record, possibly over references: "customer.plan" reads the ticket's customer's plan. */
final readonly class Path implements Readable
{
    /** @param  list<Field>  $hops the reference fields walked before the last field; empty for a field of the record itself */
    public function __construct(
        public array $hops,
        public Field $field,
    ) {
    }

    /** The record's own field that the path starts with, which is what a change of the record can touch. */
    public function first(): Field
    {
        return $this->hops[0] ?? $this->field;
    }

    public function field(): Field
    {
        return $this->field;
    }

    public function name(): string
    {
        return implode('.', array_map(static fn (Field $field): string => $field->name, [...$this->hops, $this->field]));
    }

    public function label(): string
    {
        return implode(' › ', array_map(static fn (Field $field): string => $field->label, [...$this->hops, $this->field]));
    }
}
