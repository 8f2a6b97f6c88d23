<?php

declare(strict_types=1);

namespace VividLedger\Engine;

/** Why a rule fired on a change, or the first reason why it did not. */
enum Reason: string
{
    case Fires = 'fires';
    case Trigger = 'trigger';
    case Forestalled = 'forestalled';
    case Conditions = 'conditions';
    case NoTurn = 'no_turn';
    case GuardHeld = 'guard_held';
}
