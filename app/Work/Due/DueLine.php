<?php

declare(strict_types=1);

namespace App\Work\Due;

/** A line of a run falls due. */
final readonly class DueLine extends DueRow
{
    public function __construct(
        int $id,
        string $type,
        int $record,
        int $entry,
        ?\DateTimeImmutable $due,
        string $said,
        ?int $rule,
        ?int $page,
        public int $run,
        public int $place,
    ) {
        parent::__construct($id, $type, $record, $entry, $due, $said, $rule, $page);
    }

    public function moment(): string
    {
        return "run {$this->run} {$this->due?->getTimestamp()}";
    }

    public function order(): array
    {
        return [$this->place, $this->id];
    }
}
