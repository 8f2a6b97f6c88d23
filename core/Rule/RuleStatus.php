<?php

declare(strict_types=1);

namespace VividLedger\Rule;

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
            self::Draft => 'Draft',
            self::InForce => 'In force',
            self::Paused => 'Paused',
            self::Retired => 'Retired',
        };
    }
}
