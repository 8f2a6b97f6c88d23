<?php

declare(strict_types=1);

namespace App\Store\Timing;

use App\Models\Access\HeldCode;
use App\Models\Columns;
use App\Models\Timing\LineSort;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\ScheduledLine;
use App\Store\Sql\Batch;
use Illuminate\Database\Query\Builder;
use VividLedger\Engine\ExecutedStep;
use VividLedger\Engine\Firing;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\Postponed;
use VividLedger\Engine\Retimed;
use VividLedger\Engine\Step;
use VividLedger\Engine\Struck;
use VividLedger\Engine\StruckCode;
use VividLedger\Engine\TooLate;
use VividLedger\Engine\WaitsForRelease;
use VividLedger\Record\Record;
use VividLedger\Rule\Performance\Pencilling;

/** What steps do to pencilled lines and runs, gathered so that it takes few statements. */
final class LineRows
{
    private const SAID = 200;

    /** @var list<array<string, mixed>> runs that begin, with their lines */
    private array $begun = [];

    /** @var list<array<string, mixed>> lines of runs that were there before */
    private array $pencilled = [];

    /** @var list<array{int, ?list<int>, StruckCode, string}> run, lines (null: all) and reason */
    private array $struck = [];

    /** @var array<int, array{?string, string, 2?: ?string, 3?: ?string}> by line: when it falls due, a note, what its timing said, and
     *     when what it waited for became true */
    private array $moved = [];

    /** @var array<string, list<int>> lines that came to an end, by their new state */
    private array $ended = [];

    /** @var list<int> lines that wait until their record is free */
    private array $locked = [];

    /** @var array<int, array<string, array{string, int}>> records made, by run */
    private array $made = [];

    /** @var array<int, true> runs that may be over */
    private array $touched = [];

    public function add(Step $step, int $entry): void
    {
        if ($step instanceof Firing && $step->performance->pencilled !== []) {
            $this->begin($step, $entry);
        } elseif ($step instanceof LineDone) {
            $run = $step->line->run;
            $this->end($run->id, $step->line->id, LineStatus::Inked);
            foreach ($step->performance->pencilled as $pencilling) {
                $this->pencilled[] = ['run_id' => $run->id] + $this->row($pencilling, $step, $entry);
            }
            if (count($step->performance->made) > count($run->made)) {
                $this->made[$run->id] = $this->made($step);
            }
        } elseif ($step instanceof TooLate) {
            $this->end($step->line->run->id, $step->line->id, LineStatus::Late);
        } elseif ($step instanceof Postponed) {
            $this->moved[$step->line->id] = [Columns::moment($step->until), $step->because];
        } elseif ($step instanceof WaitsForRelease) {
            $this->locked[] = $step->line->id;
        } elseif ($step instanceof Struck) {
            $this->struck[] = [$step->run->id, $step->lines, $step->code, $step->because];
            $this->touched[$step->run->id] = true;
            if ($step->lines === null) {
                $this->pencilled = array_values(array_filter(
                    $this->pencilled,
                    static fn (array $row): bool => $row['run_id'] !== $step->run->id,
                ));
            }
        } elseif ($step instanceof Retimed) {
            foreach ($step->lines as $line => $moved) {
                $this->moved[$line] = [self::moment($moved[1]), '', self::moment($moved[2] ?? null), self::moment($step->met)];
            }
        }
    }

    /** @return array<int, int> ids of the runs that began, by the number of the entry that began them */
    public function write(): array
    {
        $runs = [];
        $lines = $this->pencilled;
        if ($this->begun !== []) {
            $rows = array_map(static fn (array $begun): array => $begun['run'], $this->begun);
            foreach (Batch::insertForIds(RuleRun::class, $rows) as $index => $id) {
                $runs[$rows[$index]['entry_id']] = $id;
                foreach ($this->begun[$index]['lines'] as $line) {
                    $lines[] = ['run_id' => $id] + $line;
                }
            }
        }
        foreach ($this->ended as $status => $ids) {
            ScheduledLine::rows()->whereIn('id', $ids)->update(['status' => $status]);
        }
        // Before new lines are there, which striking out a whole run must not touch.
        foreach ($this->struck as [$run, $only, $code, $because]) {
            ScheduledLine::toComeRows()->where('run_id', $run)
                ->when($only !== null, static fn (Builder $lines): Builder => $lines->whereIn('id', $only ?? []))
                ->update(ScheduledLine::struck($code, $because));
        }
        if ($this->locked !== []) {
            ScheduledLine::rows()->whereIn('id', $this->locked)->where('status', LineStatus::Pencilled)
                ->update(['status' => LineStatus::Held, 'held_code' => HeldCode::Locked]);
        }
        $together = [];
        foreach ($this->moved as $line => $moved) {
            $together[implode(' ', $moved)][] = $line;
        }
        foreach ($together as $same) {
            $moved = $this->moved[$same[0]];
            // One that is put off keeps what was meant; one whose date has moved is meant for another moment.
            ScheduledLine::toComeRows()->whereIn('id', $same)->update(
                ['due_at' => $moved[0], 'note' => mb_substr($moved[1], 0, self::SAID)]
                    + (array_key_exists(2, $moved) ? ['meant_at' => $moved[2]] : [])
                    + (isset($moved[3]) ? ['met_at' => $moved[3]] : []),
            );
        }
        Batch::insert(ScheduledLine::class, $lines);
        foreach ($this->made as $run => $made) {
            RuleRun::rows()->where('id', $run)->update(['made' => Columns::json($made)]);
        }
        RuleRun::close(array_keys($this->touched));

        return $runs;
    }

    private function begin(Firing $step, int $entry): void
    {
        $record = $step->before;
        $this->begun[] = [
            'run' => [
                'rule_id' => $step->rule->id, 'page' => $step->rule->page, 'record_type' => $record->type, 'record_id' => $record->id,
                'entry_id' => $entry, 'started_at' => Columns::moment($step->performance->now),
                'made' => $step->performance->made === [] ? null : Columns::json($this->made($step)),
                'began' => Columns::json($step->cause->alteration()),
            ],
            'lines' => array_map(
                fn (Pencilling $pencilling): array => $this->row($pencilling, $step, $entry),
                $step->performance->pencilled,
            ),
        ];
    }

    /** @return array<string, array{string, int}> */
    private function made(ExecutedStep $step): array
    {
        return array_map(static fn (Record $record): array => [$record->type, $record->id], $step->performance->made);
    }

    /** @return array<string, mixed> */
    private function row(Pencilling $pencilling, ExecutedStep $step, int $entry): array
    {
        $record = $step->before;

        return [
            'sort' => LineSort::Line, 'kind' => $pencilling->kind, 'due_at' => self::moment($pencilling->due),
            'meant_at' => self::moment($pencilling->meant), 'counted_at' => self::moment($pencilling->counted),
            'met_at' => self::moment($pencilling->met),
            'record_type' => $record->type, 'record_id' => $record->id, 'entry_id' => $entry, 'rule_id' => $step->rule->id,
            'page' => $step->rule->page, 'place' => $pencilling->place, 'turn' => $pencilling->turn,
            'said' => mb_substr(
                $step->rule->line($pencilling->place)->said ?? '',
                0,
                self::SAID,
            ), 'note' => mb_substr($pencilling->why, 0, self::SAID),
        ];
    }

    private static function moment(?\DateTimeImmutable $at): ?string
    {
        return $at === null ? null : Columns::moment($at);
    }

    private function end(int $run, int $line, LineStatus $status): void
    {
        $this->ended[$status->value][] = $line;
        $this->touched[$run] = true;
    }
}
