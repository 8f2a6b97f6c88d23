<?php

declare(strict_types=1);

namespace App\Models\Outbound;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;

/**
 * An address of another system that rules call by its name. What is secret is kept encrypted, and never shown again.
 *
 * @property int $id
 * @property string $name
 * @property int $version
 * @property string $url
 * @property string $method
 * @property array<string, string> $headers
 * @property ?array<string, string> $secret_headers
 * @property ?string $signing_secret
 * @property int $timeout  seconds
 * @property int $most_tries
 * @property int $at_once  so many calls at the same time
 * @property int $per_minute
 * @property bool $may_be_inside  whether its host may lie inside the network
 * @property int $failures  one after another
 * @property ?\DateTimeImmutable $rests_until  after many failures nothing is sent for a while
 */
final class Endpoint extends LedgerModel
{
    protected $table = 'endpoints';

    protected $casts = [
        'version' => 'integer',
        'headers' => 'array',
        'secret_headers' => 'encrypted:array',
        'signing_secret' => 'encrypted',
        'timeout' => 'integer',
        'most_tries' => 'integer',
        'at_once' => 'integer',
        'per_minute' => 'integer',
        'may_be_inside' => 'boolean',
        'failures' => 'integer',
        'rests_until' => Instant::class,
    ];
}
