<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Words\Words;

/** What a role may do with one field. */
enum FieldAccess: string
{
    case Full = 'full';
    case ReadOnly = 'read_only';
    case Hidden = 'hidden';

    public function label(): string
    {
        return match ($this) {
            self::Full => Words::say('seen and changed'),
            self::ReadOnly => Words::say('seen, not changed'),
            self::Hidden => Words::say('hidden'),
        };
    }
}
