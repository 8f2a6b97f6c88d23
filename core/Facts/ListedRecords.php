<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Record\Record;

/**
 * Records of which only those that may refer to another can be listed: their conditions are judged here, in the world that these
 * records belong to. Nothing is taken or kept, and no silence is known of.
 */
abstract class ListedRecords implements RecordFacts
{
    private ?Facts $world = null;

    final public function judgedIn(Facts $world): void
    {
        $this->world = $world;
    }

    /** @return iterable<Record> by id, among them all whose reference field names the parent */
    abstract protected function referring(string $type, string $by, int $parent): iterable;

    public function recordToChange(string $type, int $id): ?Record
    {
        return $this->record($type, $id);
    }

    public function children(Children $children, int $parent, int $most): array
    {
        $world = $this->world ?? throw new \LogicException('These records belong to no world yet.');
        $found = [];
        foreach ($this->referring($children->type, $children->by, $parent) as $record) {
            if ($children->has($record, $parent, $world)) {
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

    public function silentSince(Quiet $quiet, string $type, int $id): ?\DateTimeImmutable
    {
        return null;
    }

    public function silenceMark(Quiet $quiet, string $type, int $id): ?int
    {
        return null;
    }
}
