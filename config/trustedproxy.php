<?php

declare(strict_types=1);

return [
    // Whose word counts for the address and scheme a request came by: addresses or networks, with commas; "*" for whoever connects.
    'proxies' => env('TRUSTED_PROXIES') ?: null,
];
