<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Columns;
use App\Models\Timing\LineStatus;
use App\Models\Timing\ScheduledLine;
use App\Store\HouseClock;
use App\Store\Sql\Lock;
use Illuminate\Database\Query\Builder;

/** Finds and claims pencilled rows whose time has come. What other workers hold is passed over. */
final readonly class DueRows
{
    public function __construct(private HouseClock $clock)
    {
    }

    /** The rows that are due, the earliest first, so many of them, claimed as long as the transaction lasts. */
    public static function due(string $now, int $most): Builder
    {
        return self::pencilled()->where('due_at', '<=', $now)->orderBy('due_at')->orderBy('id')->limit($most)->lock(Lock::SKIP);
    }

    /** @return list<DueRow> */
    public function claim(int $most): array
    {
        return self::read(self::due(Columns::moment($this->clock->now()), $most));
    }

    /**
     * @param  list<int>  $ids
     * @return list<DueRow> those that are still pencilled in and that nobody else holds
     */
    public function again(array $ids): array
    {
        return self::read(self::pencilled()->whereIn('id', $ids)->orderBy('due_at')->orderBy('id')->lock(Lock::SKIP));
    }

    /** One row that is still pencilled in, waited for; null when it is not. */
    public function still(int $id): ?DueRow
    {
        return self::read(self::pencilled()->where('id', $id)->lockForUpdate())[0] ?? null;
    }

    /** One row whatever its state, locked by whoever asks. */
    public static function one(int $id): DueRow
    {
        return DueRow::of(ScheduledLine::rows()->where('id', $id)->first() ?? throw new \LogicException('A locked row is there.'));
    }

    /**
     * Lines of one moment are done together, so a moment that is claimed in part is fetched whole; where another worker has the
     * rest of it, it is left for the next round.
     *
     * @param  non-empty-list<DueRow>  $rows
     * @return list<DueRow>
     */
    public function wholeMoments(array $rows): array
    {
        $edge = $rows[count($rows) - 1]->due;
        $at = $edge === null ? null : Columns::moment($edge);
        $held = array_fill_keys(array_map(static fn (DueRow $row): int => $row->id, $rows), true);
        // Only at its end can a batch cut a moment in two.
        $runs = self::runs(array_filter($rows, static fn (DueRow $row): bool => $row->due == $edge));
        if ($runs !== []) {
            foreach (self::read(self::pencilled()->where('due_at', $at)->whereIn('run_id',
                $runs)->orderBy('id')->lock(Lock::SKIP)) as $row) {
                if (! isset($held[$row->id])) {
                    $rows[] = $row;
                    $held[$row->id] = true;
                }
            }
        }
        $split = [];
        $all = self::runs($rows);
        $earlier = self::pencilled()->whereIn('run_id', $all)->where('due_at', '<=', $at);
        foreach ($all === [] ? [] : self::read($earlier) as $row) {
            if (! isset($held[$row->id])) {
                $split[$row->moment()] = true;
            }
        }

        return array_values(array_filter($rows, static fn (DueRow $row): bool => ! isset($split[$row->moment()])));
    }

    /**
     * @param  list<DueRow>  $rows
     * @return list<non-empty-list<DueRow>> those of one run that fall due at the same moment together, in the order written
     */
    public static function moments(array $rows): array
    {
        $moments = [];
        foreach ($rows as $row) {
            $moments[$row->moment()][] = $row;
        }
        foreach ($moments as &$moment) {
            usort($moment, static fn (DueRow $one, DueRow $other): int => $one->order() <=> $other->order());
        }

        return array_values($moments);
    }

    private static function pencilled(): Builder
    {
        return ScheduledLine::rows()->where('status', LineStatus::Pencilled);
    }

    /** @return list<DueRow> */
    private static function read(Builder $rows): array
    {
        return array_values($rows->get()->map(DueRow::of(...))->all());
    }

    /**
     * @param  array<DueRow>  $rows
     * @return list<int>
     */
    private static function runs(array $rows): array
    {
        $runs = [];
        foreach ($rows as $row) {
            if ($row instanceof DueLine) {
                $runs[$row->run] = $row->run;
            }
        }

        return array_values($runs);
    }
}
