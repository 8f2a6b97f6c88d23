<?php

declare(strict_types=1);

namespace App\Store\Access;

use App\Models\Ledger\Entry;
use App\Store\HouseClock;
use App\Store\Sql\Batch;
use VividLedger\Record\CauseKind;

/** What happened at the doors, in the ledger: who came in, how, and what was changed about it. */
final readonly class AccessEntries
{
    public function __construct(private HouseClock $clock)
    {
    }

    /**
     * @param  ?int  $by  who did it; null when nobody was signed in
     * @param  array<string, mixed>  $data
     */
    public function write(string $kind, ?int $by, array $data = []): void
    {
        Batch::insert(Entry::class, [Entry::row($kind, $this->clock->now(), $data, ['actor_id' => $by, 'via' => CauseKind::Person])]);
    }
}
