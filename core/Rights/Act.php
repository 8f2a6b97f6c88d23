<?php

declare(strict_types=1);

namespace VividLedger\Rights;

use VividLedger\Words\Words;

/** What can be done with the records of a type. */
enum Act: string
{
    case Read = 'read';
    case Create = 'create';
    case Change = 'change';
    case Delete = 'delete';
    case Export = 'export';
    case Run = 'run';

    /** As it stands in a sentence: "you may not delete this ticket". */
    public function said(): string
    {
        return $this === self::Run ? Words::say('run rules on') : $this->value;
    }

    public function label(): string
    {
        return match ($this) {
            self::Read => Words::say('See'),
            self::Create => Words::say('Make new ones'),
            self::Change => Words::say('Change'),
            self::Delete => Words::say('Delete'),
            self::Export => Words::say('Export as files'),
            self::Run => Words::say('Run rules by hand, hold lines back'),
        };
    }
}
