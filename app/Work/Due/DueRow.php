<?php

declare(strict_types=1);

namespace App\Work\Due;

use App\Models\Columns;
use App\Models\LineSort;

/** A pencilled row whose time has come, in one of its sorts. */
abstract readonly class DueRow
{
    /**
     * @param  int  $id  of the pencilled row
     * @param  int  $entry  that pencilled it in; 0 for none
     * @param  string  $said  as it reads
     */
    public function __construct(
        public int $id,
        public string $type,
        public int $record,
        public int $entry,
        public ?\DateTimeImmutable $due,
        public string $said,
        public ?int $rule,
        public ?int $page,
    ) {
    }

    /** @param  \stdClass  $row  of the scheduled lines, as the database gives it */
    public static function of(\stdClass $row): self
    {
        $common = [
            (int) $row->id, (string) $row->record_type, (int) $row->record_id, (int) $row->entry_id,
            $row->due_at === null ? null : Columns::instant($row->due_at), (string) $row->said,
            $row->rule_id === null ? null : (int) $row->rule_id, $row->page === null ? null : (int) $row->page,
        ];
        $sort = LineSort::from($row->sort);

        return match ($sort) {
            LineSort::Line => new DueLine(...[...$common, (int) $row->run_id, (int) $row->place]),
            LineSort::Task => new DueTask(...[...$common, (int) $row->task_id]),
            LineSort::Start, LineSort::Round => new DueStart(...[...$common, (string) $row->occasion, $sort->event()]),
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
