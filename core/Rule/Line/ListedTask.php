<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

/** An open task as it stands on a list. */
final readonly class ListedTask
{
    /** @param  string  $number  of the record it stands on */
    public function __construct(
        public int $assignee,
        public string $title,
        public ?\DateTimeImmutable $due,
        public string $type,
        public int $record,
        public string $number,
    ) {
    }
}
