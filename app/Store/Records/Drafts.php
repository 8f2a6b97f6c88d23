<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Store\Actor;
use App\Store\Types\Numbers;
use VividLedger\Formula\ComputedFields;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;

/** Records as they are going to be, before the rules have answered. */
final readonly class Drafts
{
    public function __construct(private Numbers $numbers)
    {
    }

    /** @param  array<string, string|int|bool|null>  $given  checked values */
    public function made(RecordType $type, int $id, array $given, Actor $actor, \DateTimeImmutable $now, bool $isOnPaper = false): Record
    {
        $stamp = Value::instantText($now);
        $values = [];
        foreach ($type->fields as $name => $field) {
            $values[$name] = match (true) {
                array_key_exists($name, $given) => $given[$name] ?? ($field->type === FieldType::Tick ? false : null),
                // Numbers are not taken for what is only tried.
                $isOnPaper => $field->begun(),
                default => $this->numbers->next($type, $field) ?? $field->begun(),
            };
        }

        return new Record($type->name, $id, 1, ComputedFields::with($type, array_replace(
            $values,
            ['created_at' => $stamp, 'created_by' => $actor->personId, 'updated_at' => $stamp, 'updated_by' => $actor->personId],
        )));
    }

    /** @param  array<string, string|int|bool|null>  $given  checked values, those that differ */
    public function changed(RecordType $type, Record $before, array $given, Actor $actor, \DateTimeImmutable $now): Record
    {
        $stamps = ['updated_at' => Value::instantText($now), 'updated_by' => $actor->personId];

        return new Record(
            $before->type,
            $before->id,
            $before->version + 1,
            ComputedFields::with($type, array_replace($before->values, $given, $stamps)),
        );
    }
}
