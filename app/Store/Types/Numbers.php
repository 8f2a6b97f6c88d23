<?php

declare(strict_types=1);

namespace App\Store\Types;

use App\Models\Counter;
use App\Store\HouseClock;
use App\Store\Setup\Company;
use VividLedger\Record\Record;
use VividLedger\Schema\Field;
use VividLedger\Schema\Numbering;
use VividLedger\Schema\RecordType;

/** Numbers that the application gives by itself, as a field's pattern says. */
final readonly class Numbers
{
    public function __construct(private HouseClock $clock, private Company $company)
    {
    }

    /** @return ?string null for a field that is not numbered */
    public function next(RecordType $type, Field $field): ?string
    {
        $numbering = $field->numbering === null ? null : Numbering::of($field->numbering);
        if ($numbering === null) {
            return null;
        }
        $today = $this->clock->now()->setTimezone($this->company->zone());

        return $numbering->number($today, Counter::next($type->name, $field->name, $numbering->period($today)));
    }

    /** A record that a rule made, with its numbers. */
    public function in(RecordType $type, Record $record): Record
    {
        $numbers = [];
        foreach ($type->fields as $name => $field) {
            if ($field->numbering !== null && $record->value($name) === null) {
                $numbers[$name] = $this->next($type, $field);
            }
        }

        return $numbers === [] ? $record : $record->with(array_replace($record->values, $numbers));
    }
}
