<?php

declare(strict_types=1);

return [
    'driver' => env('SESSION_DRIVER', 'database'),
    'lifetime' => 60 * 12,
    'expire_on_close' => false,
    'encrypt' => false,
    'table' => 'sessions',
    // The clock process sweeps old sessions, so no request has to.
    'lottery' => [0, 100],
    'cookie' => 'vivid_ledger_session',
    'path' => '/',
    'domain' => null,
    'secure' => env('SESSION_SECURE_COOKIE', false),
    'http_only' => true,
    'same_site' => 'lax',
];
