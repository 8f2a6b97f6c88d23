<?php

declare(strict_types=1);

namespace App\Evidence\Setup;

/** What a setup consists of, in an order in which each can name what comes before it. */
final class SetupParts
{
    /** @return list<class-string<SetupPart>> */
    public static function all(): array
    {
        return [
            TypePart::class, RolePart::class, CalendarPart::class, ConditionPart::class, LadderPart::class, LetterPart::class,
            RoutePart::class, SlipPart::class, EndpointPart::class, HookPart::class, RulePart::class,
        ];
    }
}
