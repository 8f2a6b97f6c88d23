<?php

declare(strict_types=1);

namespace VividLedger\Rights;

/** What a role may do with one field. */
enum FieldAccess: string
{
    case Full = 'full';
    case ReadOnly = 'read_only';
    case Hidden = 'hidden';

    public function label(): string
    {
        return match ($this) {
            self::Full => 'seen and changed',
            self::ReadOnly => 'seen, not changed',
            self::Hidden => 'hidden',
        };
    }
}
