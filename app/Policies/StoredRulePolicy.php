<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Person;

/** Who may write rules, put them in force, and keep what they name. */
final class StoredRulePolicy
{
    public function edit(Person $person): bool
    {
        return $person->role->mayEditRules();
    }
}
