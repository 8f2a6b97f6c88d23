<?php

declare(strict_types=1);

namespace App\Http;

use Closure;
use Illuminate\Contracts\Validation\ValidationRule;
use VividLedger\Record\InvalidValue;
use VividLedger\Record\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Words\Words;

/** A moment from outside (ISO 8601), or a day, which begins at midnight UTC. Nothing else is guessed to be one. */
final class Moment implements ValidationRule
{
    public function validate(string $attribute, mixed $value, Closure $fail): void
    {
        foreach ([FieldType::DateTime, FieldType::Date] as $type) {
            try {
                if (Value::of(new Field($attribute, $attribute, $type), $value) !== null) {
                    return;
                }
            } catch (InvalidValue) {
                continue;
            }
        }
        $fail(Words::say('Give a moment such as 2026-11-24T09:40:00Z, or a day such as 2026-11-24, in the years 1000 to 9999.'));
    }
}
