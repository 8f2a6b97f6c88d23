<?php

declare(strict_types=1);

namespace VividLedger\Schema;

/** All record types of a company. */
final readonly class Schema
{
    /** Enough for "Contact › Customer › Parent › Plan"; each hop is a read of another record. */
    public const MAX_HOPS = 3;

    /** @param  array<string, RecordType>  $types by name */
    public function __construct(public array $types)
    {
    }

    public function type(string $name): ?RecordType
    {
        return $this->types[$name] ?? null;
    }

    /** What stands behind a field: the records it refers to, or the people; null where it refers to nothing. */
    public function behind(?Field $field): ?RecordType
    {
        return match (true) {
            $field === null => null,
            $field->type === FieldType::Person => People::type(),
            default => $field->target === null ? null : $this->type($field->target),
        };
    }

    /** The path a dotted name means, seen from a record type; null when a part of it does not exist. */
    public function path(RecordType $from, string $dotted): ?Path
    {
        $names = explode('.', $dotted);
        $last = array_pop($names);
        if (count($names) > self::MAX_HOPS) {
            return null;
        }
        $hops = [];
        foreach ($names as $name) {
            $hop = $from->field($name);
            $next = $this->behind($hop);
            if ($hop === null || $next === null) {
                return null;
            }
            $hops[] = $hop;
            $from = $next;
        }
        $field = $from->field($last);

        return $field === null ? null : new Path($hops, $field);
    }
}
