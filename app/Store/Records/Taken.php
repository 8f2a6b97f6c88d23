<?php

declare(strict_types=1);

namespace App\Store\Records;

use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Database\UniqueConstraintViolationException;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** Two wanted the same value at once, or a rule wrote what another record has: the index of the column knows. */
final class Taken extends DomainError
{
    /** @return self|UniqueConstraintViolationException what was thrown, where it is about no field of the type */
    public static function from(RecordType $type, UniqueConstraintViolationException $clash): self|UniqueConstraintViolationException
    {
        $name = preg_match('/for key \'(?:[^\'.]*\.)?unique_(\w+)\'/', $clash->getMessage(), $found) === 1 ? $found[1] : '';
        $field = $type->field($name);
        if ($field === null) {
            return $clash;
        }
        $message = Words::say('{field}: another record has it already.', field: $field->label);

        return new self('invalid_values', $message, RefusedFor::Conflict, [
            ['at' => "/values/{$name}", 'code' => 'taken', 'message' => $message],
        ]);
    }
}
