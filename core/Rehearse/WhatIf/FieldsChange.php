<?php

declare(strict_types=1);

namespace VividLedger\Rehearse\WhatIf;

use VividLedger\Record\Display;
use VividLedger\Rehearse\Play;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Somebody changes fields of the record. */
final readonly class FieldsChange implements WhatIf
{
    /** @param  array<string, string|int|bool|null>  $set  values by field name, normalised */
    public function __construct(private \DateTimeImmutable $at, public array $set)
    {
    }

    public static function kind(): string
    {
        return 'change';
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function prepare(Play $play): void
    {
    }

    public function apply(Play $play, int $record, RecordType $type, ?int $actor): void
    {
        $before = $play->paper->record($type->name, $record);
        if ($before !== null) {
            $play->save($before, $record, $type->name, $this->set, $actor, true);
        }
    }

    public function said(RecordType $type, Display $display): string
    {
        $parts = [];
        foreach ($this->set as $name => $value) {
            $field = $type->fields[$name];
            $parts[] = $value === null ? Words::say(
                '{field} is cleared',
                field: $field->label,
            ) : Words::say('{field} becomes {value}', field: $field->label, value: $display->of($field, $value));
        }

        return implode(', ', $parts);
    }
}
