<?php

declare(strict_types=1);

namespace App\Store\Timing;

use VividLedger\Engine\ExecutedStep;
use VividLedger\Engine\LineDone;
use VividLedger\Engine\Step;
use VividLedger\Engine\Struck;

/** What lines ask of people or other systems, gathered so that it takes few statements, and what is past by it. */
abstract class AskedRows
{
    /** @var list<array<string, mixed>> */
    protected array $rows = [];

    /** @var list<int> ids of runs */
    private array $struck = [];

    /** A run that is struck out takes what it asked for with it. */
    final public function struck(Step $step): void
    {
        if ($step instanceof Struck && $step->lines === null) {
            $this->struck[] = $step->run->id;
        }
    }

    /**
     * @return array{list<array{rule_id: int, place: int, record_type: string, record_id: int}>, list<int>} what lines ask for, and runs
     *     that are struck out
     */
    final public function past(): array
    {
        return [array_map(static fn (array $row): array => [
            'rule_id' => (int) $row['rule_id'], 'place' => (int) $row['place'], 'record_type' => (string) $row['record_type'],
            'record_id' => (int) $row['record_id'],
        ], $this->rows), $this->struck];
    }

    protected static function runOf(ExecutedStep $step): ?int
    {
        return $step instanceof LineDone ? $step->line->run->id : null;
    }

    /**
     * @param  array<int, int>  $runs  ids of the runs that began, by the number of the entry that began them
     * @return list<array<string, mixed>> the rows, each of the run that it belongs to
     */
    final protected function withRuns(array $runs): array
    {
        return array_map(
            static fn (array $row): array => ['run_id' => $row['run_id'] ?? $runs[$row['entry_id']] ?? null] + $row,
            $this->rows,
        );
    }
}
