<?php

declare(strict_types=1);

return [
    // How many pencilled lines a worker claims at a time, and how long it may hold them before another takes over.
    'batch' => 100,
    'lease_seconds' => 60,
    // A wrong password can be tried so often a minute for one log-in and address.
    'sign_in_attempts' => 5,
];
