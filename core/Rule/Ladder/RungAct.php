<?php

declare(strict_types=1);

namespace VividLedger\Rule\Ladder;

/** What a rung does with the person it finds. */
enum RungAct: string
{
    case Tell = 'tell';
    case Reassign = 'reassign';
    case Raise = 'raise';

    /** As said of a person: "tells Tomas Weld". */
    public function said(string $person): string
    {
        return match ($this) {
            self::Tell => "tells {$person}",
            self::Reassign => "makes {$person} the owner",
            self::Raise => 'raises the priority',
        };
    }

    /** As offered: "tell them". */
    public function label(): string
    {
        return match ($this) {
            self::Tell => 'tell them',
            self::Reassign => 'make them the owner',
            self::Raise => 'raise the priority',
        };
    }
}
