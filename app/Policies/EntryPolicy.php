<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Ledger\Entry;
use App\Models\People\Person;
use Illuminate\Auth\Access\Response;
use VividLedger\Record\CauseKind;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** Who may reverse what: people their own edits, an administrator what rules and others did. */
final class EntryPolicy
{
    public function reverse(Person $person, Entry $entry): Response
    {
        $isOwn = $entry->kind === 'changed' && $entry->actor_id === $person->id && $entry->via !== CauseKind::Rule;

        return $isOwn || $person->may(Duty::WriteRules)
            ? Response::allow() : Response::deny(
                Words::say('You can reverse your own edits. What rules and others did, an administrator reverses.'),
            );
    }
}
