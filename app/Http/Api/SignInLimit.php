<?php

declare(strict_types=1);

namespace App\Http\Api;

use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\RateLimiter;

/** How often somebody may guess a password. Whoever knew it starts afresh, so signing in often is no guessing. */
final class SignInLimit
{
    public const NAME = 'sign-in';

    public static function of(Request $request): Limit
    {
        return Limit::perMinute((int) config('ledger.sign_in_attempts'))->by(self::key($request));
    }

    public static function forget(Request $request): void
    {
        // The throttle middleware keeps its count under this hash.
        RateLimiter::clear(md5(self::NAME.self::key($request)));
    }

    private static function key(Request $request): string
    {
        return mb_strtolower((string) $request->input('email')).'|'.$request->ip();
    }
}
