<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Models\People\Person;
use App\Store\Refused;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Hash;
use VividLedger\Words\Words;

/** Before what could shut somebody out or let somebody in, the password is asked for again; guesses at it are counted as at the door. */
final class AskedAgain
{
    /** @throws Refused at the place of the password */
    public static function mustBe(Request $request, Person $person, string $password, string $at = '/password'): void
    {
        SignInLimit::count($request, $person->email, $person);
        if (! Hash::check($password, $person->password)) {
            throw Refused::at($at, Words::say('That is not your password.'));
        }
        SignInLimit::forget($request, $person->email, $person);
    }
}
