<?php

declare(strict_types=1);

namespace VividLedger\Time;

/** Where a moment goes whose day is not a working day. */
enum Roll: string
{
    case Next = 'next';
    case Previous = 'previous';

    public function label(): string
    {
        return "or the {$this->value} working day";
    }
}
