<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Person;

/** Who may look at every letter that left the house. */
final class MailRoomItemPolicy
{
    public function see(Person $person): bool
    {
        return $person->role->maySeeMailRoom();
    }
}
