<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Columns;
use App\Models\Timing\LineSort;

/** A pencilled row whose time has come, in one of its sorts. */
abstract readonly class DueRow
{
    public int $id;

    public string $type;

    public int $record;

    /** The entry that pencilled it in; 0 for none. */
    public int $entry;

    public ?\DateTimeImmutable $due;

    /** As it reads. */
    public string $said;

    public ?int $rule;

    public ?int $page;

    /** @param  \stdClass  $row  of the scheduled lines, as the database gives it */
    protected function __construct(\stdClass $row)
    {
        $this->id = (int) $row->id;
        $this->type = $row->record_type;
        $this->record = (int) $row->record_id;
        $this->entry = (int) $row->entry_id;
        $this->due = $row->due_at === null ? null : Columns::instant($row->due_at);
        $this->said = $row->said;
        $this->rule = $row->rule_id === null ? null : (int) $row->rule_id;
        $this->page = $row->page === null ? null : (int) $row->page;
    }

    /** @param  \stdClass  $row  of the scheduled lines, as the database gives it */
    public static function of(\stdClass $row): self
    {
        $sort = LineSort::from($row->sort);

        return match ($sort) {
            LineSort::Line => new DueLine($row),
            LineSort::Task => new DueTask($row),
            LineSort::Start, LineSort::Round => new DueStart($row, $sort->event()),
        };
    }

    /** Rows of one moment are done together, in the order written; each other row is a moment by itself. */
    public function moment(): string
    {
        return "row {$this->id}";
    }

    /** @return list<int> by which the rows of one moment stand in order */
    public function order(): array
    {
        return [0, $this->id];
    }

    public function recordKey(): string
    {
        return "{$this->type}:{$this->record}";
    }
}
