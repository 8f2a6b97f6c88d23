<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Models\People\Person;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\RateLimiter;
use VividLedger\Words\Words;

/**
 * How often somebody may guess a password: counted for the account that is meant, however its name is spelled, and for the address
 * the guesses come from. Whoever knew it starts afresh, so signing in often is no guessing.
 */
final class SignInLimit
{
    private const SECONDS = 60;

    /** @throws DomainError when there were too many wrong tries in the last minute; otherwise this one is counted until it is forgotten */
    public static function count(Request $request, string $email, ?Person $meant): void
    {
        $over = false;
        foreach (self::keys($request, $email, $meant) as $key => $most) {
            // Counted before it is looked at, so that guesses made at the same moment cannot slip through together.
            $over = RateLimiter::hit($key, self::SECONDS) > $most || $over;
        }
        if ($over) {
            throw new DomainError('too_many_tries', Words::say('Too many tries. Wait a minute and try again.'), RefusedFor::TooMany);
        }
    }

    public static function forget(Request $request, string $email, Person $meant): void
    {
        [$here, $anywhere, $address] = array_keys(self::keys($request, $email, $meant));
        RateLimiter::clear($here);
        RateLimiter::clear($anywhere);
        // Other people's wrong tries from the same address still count.
        RateLimiter::decrement($address, self::SECONDS);
    }

    /** @return array<string, int> most tries a minute by what they are counted for */
    private static function keys(Request $request, string $email, ?Person $meant): array
    {
        $most = (int) config('ledger.sign_in_attempts');
        $account = $meant === null ? 'unknown:'.hash('xxh128', mb_strtolower($email)) : "person:{$meant->id}";

        return [
            "sign-in:{$account}:{$request->ip()}" => $most, "sign-in:{$account}" => 10 * $most, "sign-in:{$request->ip()}" => 6 * $most,
        ];
    }
}
