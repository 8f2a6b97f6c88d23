<?php

declare(strict_types=1);

$address = parse_url((string) env('APP_URL', 'http://127.0.0.1:8460'));

return [
    // Only the application's own origin signs in with a session; everything else brings a token.
    'stateful' => [($address['host'] ?? '127.0.0.1').(isset($address['port']) ? ':'.$address['port'] : '')],
    'guard' => ['web'],
    'expiration' => null,
    'token_prefix' => 'vl_',
    'middleware' => [
        'authenticate_session' => Laravel\Sanctum\Http\Middleware\AuthenticateSession::class,
        'encrypt_cookies' => Illuminate\Cookie\Middleware\EncryptCookies::class,
        'validate_csrf_token' => Illuminate\Foundation\Http\Middleware\ValidateCsrfToken::class,
    ],
];
