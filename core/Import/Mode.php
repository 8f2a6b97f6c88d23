<?php

declare(strict_types=1);

namespace VividLedger\Import;

use VividLedger\Rights\Act;

/** What rows may do. */
enum Mode: string
{
    case Create = 'create';     // make records; one that is there already is left
    case Update = 'update';     // change records that are there
    case Both = 'both';

    /** @return list<Act> what whoever brings the rows in has to be allowed */
    public function acts(): array
    {
        return match ($this) {
            self::Create => [Act::Create],
            self::Update => [Act::Change],
            self::Both => [Act::Create, Act::Change],
        };
    }
}
