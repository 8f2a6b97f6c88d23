<?php

declare(strict_types=1);

return [
    'default' => 'mariadb',
    'connections' => [
        'mariadb' => [
            'driver' => 'mariadb',
            'host' => env('DB_HOST', '127.0.0.1'),
            'port' => env('DB_PORT', '3306'),
            'unix_socket' => env('DB_SOCKET', ''),
            'database' => env('DB_DATABASE', 'vivid_ledger'),
            'username' => env('DB_USERNAME', 'root'),
            'password' => env('DB_PASSWORD', ''),
            'charset' => 'utf8mb4',
            'collation' => 'utf8mb4_unicode_ci',
            'prefix' => '',
            'strict' => true,
            // Every statement sees what was committed last, so what is read after a lock was waited for is not old.
            'isolation_level' => 'READ COMMITTED',
            'timezone' => '+00:00',
            // One round trip for each statement instead of two; values keep their types with mysqlnd.
            'options' => [PDO::ATTR_EMULATE_PREPARES => true],
        ],
    ],
    'redis' => [
        'client' => env('REDIS_CLIENT', 'phpredis'),
        'default' => [
            'host' => env('REDIS_HOST', '127.0.0.1'), 'port' => env('REDIS_PORT', '6379'), 'password' => env('REDIS_PASSWORD') ?: null,
            'database' => 0,
        ],
    ],
    'migrations' => ['table' => 'migrations'],
];
