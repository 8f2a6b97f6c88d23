<?php

declare(strict_types=1);

namespace App\Evidence;

use App\Store\SchemaStore;
use VividLedger\Condition\Total;
use VividLedger\Record\Record;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Schema\Children;

/** The facts just after an entry, for looking back over very many of them: one object, moved through time. */
final class TimelineFacts extends PaperFacts
{
    private int $entry = 0;

    private \DateTimeImmutable $then;

    public function __construct(
        SchemaStore $schemas,
        private readonly Timelines $timelines,
        \DateTimeImmutable $at,
        \DateTimeZone $zone,
    ) {
        parent::__construct($schemas, $at, $zone);
        $this->then = $at;
    }

    public function after(int $entry, \DateTimeImmutable $at): self
    {
        [$this->entry, $this->then] = [$entry, $at];

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
        $found = [];
        foreach ($this->timelines->referring($children->type, $children->by, $parent) as $id) {
            $record = $this->timelines->record($children->type, $id, $this->entry);
            if ($record !== null && $children->has($record, $parent, $this)) {
                $found[] = $record;
            }
            if (count($found) === $most) {
                break;
            }
        }

        return $found;
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        return $total->over(array_filter(
            $this->children($total->children, $parent, PHP_INT_MAX),
            static fn (Record $record): bool => ! in_array($record->id, $except, true),
        ));
    }

    /** Silences of the past are found by replaying it. */
    public function silenceMark(FallsQuiet $trigger, string $type, int $id): null
    {
        return null;
    }

    public function silentSince(FallsQuiet $trigger, string $type, int $id): null
    {
        return null;
    }
}
