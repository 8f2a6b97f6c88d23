<?php

declare(strict_types=1);

namespace App\Models\Outbound;

/** What a link of a letter lets somebody do, once. */
enum LinkKind: string
{
    case Begin = 'begin';   // open a company where there is none
    case Invite = 'invite'; // come in for the first time
    case Reset = 'reset';   // choose another password

    public function hours(): int
    {
        return $this === self::Reset ? 2 : 7 * 24;
    }
}
