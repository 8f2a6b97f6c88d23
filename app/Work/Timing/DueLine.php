<?php

declare(strict_types=1);

namespace App\Work\Timing;

/** A line of a run falls due. */
final readonly class DueLine extends DueRow
{
    public int $run;

    public int $place;

    protected function __construct(\stdClass $row)
    {
        parent::__construct($row);
        $this->run = (int) $row->run_id;
        $this->place = (int) $row->place;
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
