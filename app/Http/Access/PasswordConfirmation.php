<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Models\People\Person;
use App\Store\DomainError;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Hash;
use VividLedger\Words\Words;

/** Before what could shut somebody out or let somebody in, the password is asked for again; guesses at it are counted as at the door. */
final class PasswordConfirmation
{
    /** @throws DomainError at the place of the password */
    public static function mustBe(Request $request, Person $person, string $password, string $at = '/password'): void
    {
        SignInLimit::count($request, $person->email, $person);
        if (! Hash::check($password, $person->password)) {
            throw DomainError::at($at, Words::say('That is not your password.'));
        }
        SignInLimit::forget($request, $person->email, $person);
    }
}
