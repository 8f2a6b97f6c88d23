<?php

declare(strict_types=1);

namespace App\Models\Inbound;

use App\Models\Casts\Instant;
use App\Models\LedgerModel;

/**
 * An address to which another system posts JSON, and how that becomes a record.
 *
 * @property int $id
 * @property string $name
 * @property int $version
 * @property string $key  the last part of its address
 * @property string $secret  what arrives is signed with it (Standard Webhooks); shown once, when it is made
 * @property string $record_type
 * @property list<array{path: string, field: string}> $takes  which member of what arrives goes into which field
 * @property list<array{field: string, value: string}> $starts  what a record that is made has besides
 * @property ?string $known_by  the field by which a record that is there already is found
 * @property bool $may_create
 * @property bool $is_open
 * @property int $turned_away  how often something came that was not signed
 * @property ?\DateTimeImmutable $turned_away_at  by the machine's own time
 */
final class Hook extends LedgerModel
{
    protected $table = 'hooks';

    protected $attributes = ['turned_away' => 0];

    protected $casts = [
        'version' => 'integer',
        'secret' => 'encrypted',
        'takes' => 'array',
        'starts' => 'array',
        'may_create' => 'boolean',
        'is_open' => 'boolean',
        'turned_away' => 'integer',
        'turned_away_at' => Instant::class,
    ];
}
