<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Store\History;
use App\Store\PastFacts;
use App\Store\SchemaStore;
use Illuminate\Database\Connection;
use VividLedger\Condition\Total;
use VividLedger\Record\Record;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Schema\Children;

/** The facts just after an entry, for looking back over very many of them: one object, moved through time. */
final class TimelineFacts extends PaperFacts
{
    private int $entry = 0;

    private \DateTimeImmutable $then;

    private ?PastFacts $past = null;

    public function __construct(
        Connection $db,
        SchemaStore $schemas,
        private readonly Timelines $timelines,
        private readonly History $history,
        \DateTimeImmutable $at,
        \DateTimeZone $zone,
    ) {
        parent::__construct($db, $schemas, $at, $zone);
        $this->then = $at;
    }

    public function after(int $entry, \DateTimeImmutable $at): self
    {
        [$this->entry, $this->then, $this->past] = [$entry, $at, null];

        return $this;
    }

    public function now(): \DateTimeImmutable
    {
        return $this->then;
    }

    public function record(string $type, int $id): ?Record
    {
        return $this->timelines->record($type, $id, $this->entry);
    }

    public function children(Children $children, int $parent, int $most): array
    {
        return $this->past()->children($children, $parent, $most);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        return $this->past()->total($total, $parent, $except);
    }

    private function past(): PastFacts
    {
        return $this->past ??= new PastFacts($this->db, $this->schemas, $this->history, $this->entry, $this->then);
    }

    /** Silences of the past are found by replaying it. */
    public function silentSince(FallsQuiet $trigger, string $type, int $id): null
    {
        return null;
    }
}
