<?php

declare(strict_types=1);

namespace VividLedger\Rule;

use VividLedger\Words\Words;

/** Where a rule stands in its life. */
enum RuleStatus: string
{
    case Draft = 'draft';
    case InForce = 'in_force';
    case Paused = 'paused';
    case Retired = 'retired';

    public function label(): string
    {
        return match ($this) {
            self::Draft => Words::say('Draft'),
            self::InForce => Words::say('In force'),
            self::Paused => Words::say('Paused'),
            self::Retired => Words::say('Retired'),
        };
    }
}
