<?php

declare(strict_types=1);

namespace App\Work\Timing;

/** A task falls due. */
final readonly class DueTask extends DueRow
{
    public int $task;

    protected function __construct(\stdClass $row)
    {
        parent::__construct($row);
        $this->task = (int) $row->task_id;
    }
}
