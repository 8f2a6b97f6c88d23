<?php

declare(strict_types=1);

namespace App\Evidence;

use VividLedger\Condition\Total;
use VividLedger\Engine\GuardState;
use VividLedger\Message\Address;
use VividLedger\Record\Record;
use VividLedger\Rule\Trigger\FallsQuiet;
use VividLedger\Schema\Children;

/**
 * The facts a proof was kept with: its own records, and nothing else of what the company has since done. People, letters and calendars are
 * those of today.
 */
final class ProofFacts extends PaperFacts
{
    /** @param  list<Record>  $records */
    public function keep(array $records): self
    {
        foreach ($records as $record) {
            $this->records["{$record->type}:{$record->id}"] = $record;
        }

        return $this;
    }

    public function record(string $type, int $id): ?Record
    {
        return $this->records["{$type}:{$id}"] ?? null;
    }

    public function children(Children $children, int $parent, int $most): array
    {
        $found = array_values(array_filter(
            $this->records,
            fn (?Record $record): bool => $record !== null && $children->has($record, $parent, $this),
        ));
        usort($found, static fn (Record $one, Record $other): int => $one->id <=> $other->id);

        return array_slice($found, 0, $most);
    }

    public function total(Total $total, int $parent, array $except): ?string
    {
        return $total->over(array_filter(
            $this->children($total->children, $parent, PHP_INT_MAX),
            static fn (Record $record): bool => ! in_array($record->id, $except, true),
        ));
    }

    public function title(string $type, int $id): ?string
    {
        $record = $this->record($type, $id);
        $recordType = $this->schemas->schema()->type($type);
        $title = $recordType === null ? null : $record?->value($recordType->title);

        return $record === null || $recordType === null ? null : (is_string($title) ? $title : $recordType->numberOf($id));
    }

    public function lastInTurn(string $team): null
    {
        return null;
    }

    public function openTasks(array $people): array
    {
        return [];
    }

    public function followers(string $type, int $id): array
    {
        return [];
    }

    public function guardHeld(int $ruleId, string $type, int $recordId, int $epoch, string $key): bool
    {
        return false;
    }

    public function guardState(int $ruleId, string $type, int $recordId): GuardState
    {
        return new GuardState;
    }

    public function freshId(string $type): int
    {
        return max(
            0,
            0,
            ...array_map(static fn (?Record $record): int => $record?->type === $type ? $record->id : 0, array_values($this->records)),
        ) + 1;
    }

    public function inPlay(string $type, int $id): array
    {
        return [];
    }

    public function messagesTo(Address $address, \DateTimeImmutable $since): array
    {
        return [];
    }

    /** The records of a proof have no past but what is played. */
    public function silenceMark(FallsQuiet $trigger, string $type, int $id): null
    {
        return null;
    }

    public function silentSince(FallsQuiet $trigger, string $type, int $id): null
    {
        return null;
    }
}
