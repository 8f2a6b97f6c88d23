<?php

declare(strict_types=1);

namespace App\Http;

use Closure;
use Illuminate\Contracts\Validation\ValidationRule;
use VividLedger\Words\Words;

/** Somebody as a request names them: by id or by handle. Who that is, is found out where it is asked for. */
final class PersonGiven implements ValidationRule
{
    public function validate(string $attribute, mixed $value, Closure $fail): void
    {
        if (! is_scalar($value)) {
            $fail(Words::say('There is nobody ‘{said}’. Give an id or a handle.', said: '?'));
        }
    }
}
