<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\People\Person;

/** Who may change records, and do what belongs to the work on them. */
final class StoredRecordPolicy
{
    public function edit(Person $person): bool
    {
        return $person->mayWork();
    }
}
