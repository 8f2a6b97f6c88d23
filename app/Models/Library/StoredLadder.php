<?php

declare(strict_types=1);

namespace App\Models\Library;

use App\Models\Casts\Json;
use App\Models\LedgerModel;

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
