<?php

declare(strict_types=1);

return [
    // The largest file that can be put on a record, in bytes. PHP, the web server and the screen read it here; nothing else says it.
    'file_bytes' => 10_000_000,
];
