<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Words\Words;

/** Whose records an act extends to, each of these at least as far as the one before. */
enum Reach: string
{
    case None = 'none';
    case Own = 'own';
    case Team = 'team';
    case Subtree = 'subtree';
    case All = 'all';

    public function label(): string
    {
        return match ($this) {
            self::None => Words::say('nobody’s'),
            self::Own => Words::say('their own'),
            self::Team => Words::say('their team’s'),
            self::Subtree => Words::say('those of their people'),
            self::All => Words::say('everybody’s'),
        };
    }

    /** Whether everything in the other reach is in this one. A team and the people below somebody overlap, neither holds the other. */
    public function holds(self $other): bool
    {
        return $this === $other || $this === self::All || $other === self::None
            || ($other === self::Own && $this !== self::None);
    }
}
