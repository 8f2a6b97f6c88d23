<?php

declare(strict_types=1);

namespace App\Models\Records;

use App\Models\LedgerModel;

/**
 * What a rule could not answer because its record was locked.
 *
 * @property int $id
 * @property int $sign_off_id
 * @property int $rule_id
 * @property int $page
 * @property string $record_type
 * @property int $record_id
 * @property ?array{version: int, values: array<string, string|int|bool|null>} $before
 * @property ?array{kind: string, key: string, text: string, rule: ?int, from?: string} $event
 * @property ?int $actor_id
 * @property string $via
 */
final class HeldChange extends LedgerModel
{
    protected $table = 'held_changes';

    protected $casts = [
        'sign_off_id' => 'integer',
        'rule_id' => 'integer',
        'page' => 'integer',
        'record_id' => 'integer',
        'before' => 'array',
        'event' => 'array',
        'actor_id' => 'integer',
    ];
}
