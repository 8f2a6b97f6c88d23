<?php

declare(strict_types=1);

namespace App\Models;

/**
 * What a rule in force watches: "+" for creation, "*" for any field, or a field by its name; "~" before it where it may touch runs in play.
 *
 * @property string $record_type
 * @property string $watch
 * @property int $rule_id
 */
final class RuleWatch extends LedgerModel
{
    protected $table = 'rule_watches';

    public $incrementing = false;

    protected $primaryKey = null;

    protected $casts = [
        'rule_id' => 'integer',
    ];

    /** Watched for by rules that people run. */
    public const BY_HAND = '!by_hand';

    /** Before the watches that concern runs in play. */
    public const TOUCHING = '~';

    public static function touching(string $watch): string
    {
        return self::TOUCHING.$watch;
    }

    /** What is watched for, whether to start or to touch runs. */
    public static function untouching(string $watch): string
    {
        return str_starts_with($watch, self::TOUCHING) ? substr($watch, strlen(self::TOUCHING)) : $watch;
    }
}
