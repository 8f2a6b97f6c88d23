<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Models\Records\StoredRecord;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\RefusedFor;
use App\Store\Types\SchemaStore;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\OnDelete;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** What becomes of the records that refer to one that is deleted, in the same transaction: all of it, or nothing. */
final class CascadeDelete
{
    private const MOST = 1000;

    /** @var array<string, true> records that are being deleted, so that a circle of references ends */
    private array $underWay = [];

    public function __construct(private readonly SchemaStore $schemas)
    {
    }

    /** @throws DomainError when something that refers to it does not let go */
    public function answer(SaveRecord $save, RecordType $type, int $id, Actor $actor): void
    {
        $key = "{$type->name}:{$id}";
        $this->underWay[$key] = true;
        try {
            foreach ($this->schemas->schema()->types as $other) {
                foreach ($other->fields as $field) {
                    if ($field->type === FieldType::Reference && $field->target === $type->name && $field->onDelete !== OnDelete::Keep) {
                        $this->through($save, $type, $id, $other, $field, $actor);
                    }
                }
            }
        } finally {
            unset($this->underWay[$key]);
        }
    }

    private function through(SaveRecord $save, RecordType $type, int $id, RecordType $other, Field $field, Actor $actor): void
    {
        $rows = StoredRecord::rowsOf($other)->where($field->name, $id)->orderBy('id')->limit(self::MOST + 1)->lockForUpdate()
            ->get(['id', 'version'])->reject(fn (object $row): bool => isset($this->underWay["{$other->name}:{$row->id}"]));
        if ($rows->isEmpty()) {
            return;
        }
        $numbers = $rows->take(3)->map(static fn (object $row): string => $other->numberOf((int) $row->id))->implode(', ');
        $all = $rows->count() > 3 ? Words::say('{numbers} and others', numbers: $numbers) : $numbers;
        if ($field->onDelete === OnDelete::Refuse) {
            throw new DomainError('referred_to', Words::say(
                '{number} is the {field} of {all}. Change that first.',
                number: $type->numberOf($id),
                field: $field->label,
                all: $all,
            ),
                RefusedFor::Conflict);
        }
        if ($rows->count() > self::MOST) {
            throw new DomainError('too_many', Words::say(
                'More than {most} {other} refer to it. Change or delete them first.',
                most: self::MOST,
                other: $other->plural,
            ),
                RefusedFor::Conflict);
        }
        foreach ($rows as $row) {
            $field->onDelete === OnDelete::Clear
                ? $save->change($other, (int) $row->id, (int) $row->version, [$field->name => null], $actor)
                : $save->delete($other, (int) $row->id, (int) $row->version, $actor);
        }
    }
}
