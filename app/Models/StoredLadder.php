<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\Json;

/**
 * A ladder of rungs that rules use by its name.
 *
 * @property int $id
 * @property string $name
 * @property list<array<string, mixed>> $rungs
 * @property int $version
 */
final class StoredLadder extends LedgerModel
{
    protected $table = 'ladders';

    protected $casts = [
        'rungs' => Json::class,
        'version' => 'integer',
    ];
}
