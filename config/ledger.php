<?php

declare(strict_types=1);

return [
    // How many pencilled lines a worker claims at a time.
    'batch' => 100,
    // A wrong password can be tried so often a minute for one log-in and address.
    'sign_in_attempts' => 5,
];
