<?php

declare(strict_types=1);

namespace App\Models\Rules;

use App\Models\LedgerModel;

/**
 * What a rule in force watches: "+" for creation, "*" for any field, or a field by its name; "~" before it where it may touch runs in
 * play, "#" where it may alter children on which a rule turns.
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

    /** Before the watches of children on which a rule turns. */
    public const READING = '#';

    public static function touching(string $watch): string
    {
        return self::TOUCHING.$watch;
    }

    public static function reading(string $watch): string
    {
        return self::READING.$watch;
    }

    /** What is watched for, whatever for. */
    public static function untouching(string $watch): string
    {
        return ltrim($watch, self::TOUCHING.self::READING);
    }
}
