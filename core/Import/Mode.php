<?php

declare(strict_types=1);

namespace VividLedger\Import;

/** What rows may do. */
enum Mode: string
{
    case Create = 'create';     // make records; one that is there already is left
    case Update = 'update';     // change records that are there
    case Both = 'both';
}
