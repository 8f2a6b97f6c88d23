<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** Where a change came from. */
enum CauseKind: string
{
    case Person = 'person';
    case Api = 'api';
    case Import = 'import';
    case Rule = 'rule';
    case Slip = 'slip';     // an answer on a reply slip
    case Hook = 'hook';     // what another system posted
}
