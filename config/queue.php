<?php

declare(strict_types=1);

return [
    // Where deliveries, proofs and runs wait until a worker takes them. In the database they commit with what caused them.
    'default' => env('QUEUE_CONNECTION', 'database'),
    'connections' => [
        'sync' => ['driver' => 'sync'],
        'null' => ['driver' => 'null'],
        // Longer than any job takes: one that has been silent for so long is taken for dead, and its job is done once more.
        'database' => ['driver' => 'database', 'table' => 'jobs', 'queue' => 'letters', 'retry_after' => 180, 'after_commit' => false],
        'redis' => [
            'driver' => 'redis', 'connection' => 'default', 'queue' => 'letters', 'retry_after' => 180, 'block_for' => 1,
            'after_commit' => true,
        ],
    ],
    'failed' => ['driver' => 'database-uuids', 'database' => 'mariadb', 'table' => 'failed_jobs'],
];
