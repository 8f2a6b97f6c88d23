<?php

declare(strict_types=1);

namespace VividLedger\Rights;

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
        return $this === self::Run ? 'run rules on' : $this->value;
    }

    public function label(): string
    {
        return match ($this) {
            self::Read => 'See',
            self::Create => 'Make new ones',
            self::Change => 'Change',
            self::Delete => 'Delete',
            self::Export => 'Take out in files',
            self::Run => 'Run rules by hand, hold lines back',
        };
    }
}
