<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Words\Words;

/** What a role is trusted with besides records. */
enum Duty: string
{
    case WriteRules = 'write_rules';
    case PutInForce = 'put_in_force';
    case KeepHouse = 'keep_house';
    case SeeLedger = 'see_ledger';
    case SeeDoors = 'see_doors';
    case SeeMessages = 'see_messages';
    case SeeMailRoom = 'see_mail_room';
    case DoAllTasks = 'do_all_tasks';

    public function label(): string
    {
        return match ($this) {
            self::WriteRules => Words::say('Write rules, and what they name: letters, slips, calendars, routes'),
            self::PutInForce => Words::say('Put rules in force, pause and retire them'),
            self::KeepHouse => Words::say('Set the company up: people, roles, record types, connections, the clock'),
            self::SeeLedger => Words::say('Read the ledger, of all records they may see'),
            self::SeeDoors => Words::say('See who signed in, and what changed about people'),
            self::SeeMessages => Words::say('See all messages about records they may see, in one list'),
            self::SeeMailRoom => Words::say('Open the mail room, with every letter that left'),
            self::DoAllTasks => Words::say('Complete and move other people’s tasks'),
        };
    }

    /** A rule reads every record and can copy any field where its writer sees it, and the mail room holds letters about anything. */
    public function needsToReadEverything(): bool
    {
        return in_array($this, [self::WriteRules, self::PutInForce, self::KeepHouse, self::SeeMailRoom], true);
    }
}
