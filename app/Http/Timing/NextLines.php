<?php

declare(strict_types=1);

namespace App\Http\Timing;

use App\Models\Columns;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;

/** What is pencilled in next for records of a list. */
final readonly class NextLines
{
    public function __construct(private Ahead $ahead)
    {
    }

    /**
     * @param  list<int>  $ids  of records
     * @return array<int, array{at: string, says: string}> by record; those for which nothing is pencilled in are left out
     */
    public function of(string $type, array $ids): array
    {
        $next = [];
        $lines = ScheduledLine::query()->where('record_type', $type)->whereIn('record_id', $ids)->where('status', LineStatus::Pencilled)
            ->whereNotNull('due_at')->with('task')->orderBy('due_at')->orderBy('id');
        foreach ($lines->get() as $line) {
            $next[$line->record_id] ??= [
                'at' => (string) Columns::iso(Columns::moment($line->due_at ?? throw new \LogicException('It has a time.'))),
                'says' => $this->ahead->said($line),
            ];
        }

        return $next;
    }
}
