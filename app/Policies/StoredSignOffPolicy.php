<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\People\Person;
use App\Models\SignOffs\SignOffSeat;
use App\Models\SignOffs\StoredSignOff;
use VividLedger\Rights\Duty;

/** Who sees a sign-off: whoever was asked, whoever asked for it, and whoever keeps the rules. */
final class StoredSignOffPolicy
{
    public function see(Person $person, StoredSignOff $signOff): bool
    {
        return $person->may(Duty::WriteRules) || $signOff->asker_id === $person->id
            || $signOff->seats->contains(static fn (SignOffSeat $seat): bool => $seat->person_id === $person->id);
    }
}
