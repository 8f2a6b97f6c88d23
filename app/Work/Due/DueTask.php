<?php

declare(strict_types=1);

namespace App\Work\Due;

/** A task falls due. */
final readonly class DueTask extends DueRow
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
        public int $task,
    ) {
        parent::__construct($id, $type, $record, $entry, $due, $said, $rule, $page);
    }
}
