<?php

declare(strict_types=1);

namespace App\Store\Timing;

use App\Models\Columns;
use App\Models\Timing\LineSort;
use App\Models\Timing\LineStatus;
use App\Models\Timing\RuleRun;
use App\Models\Timing\ScheduledLine;
use App\Store\HouseClock;
use App\Store\Records\PaperFacts;
use App\Store\Records\StoredFacts;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use VividLedger\Engine\StruckCode;
use VividLedger\Facts\PencilledLine;
use VividLedger\Facts\Run;
use VividLedger\Facts\View;
use VividLedger\Rule\Cases\Cases;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Rule;

/**
 * Moves runs that are in play to the next page of their rule. A line keeps its place on the page: one still to come gets the
 * new page's time, one that is gone is struck out, and one that is new is pencilled in unless its time has passed. Which case it is
 * stays as it was decided: a line that is new in a case does not come.
 */
final readonly class RunMover
{
    public function __construct(
        private SchemaStore $schemas,
        private Company $company,
        private HouseClock $clock,
    ) {
    }

    public function inPlay(int $rule): int
    {
        return RuleRun::query()->inPlay()->where('rule_id', $rule)->count();
    }

    /**
     * @param  bool  $apply  otherwise it is only counted
     * @return array{runs: int, moved: int, struck: int, added: int} how many runs, and what becomes of their lines
     */
    public function move(Rule $page, bool $apply): array
    {
        $count = ['runs' => 0, 'moved' => 0, 'struck' => 0, 'added' => 0];
        $ids = RuleRun::query()->inPlay()->where('rule_id', $page->id)->where('page', '<>', $page->page)->orderBy('id')->pluck('id')->all();
        foreach (array_chunk($ids, 200) as $chunk) {
            $at = [$this->schemas, $this->clock->now(), $this->company->zone()];
            $facts = $apply ? new StoredFacts(...$at) : new PaperFacts(...$at);
            // The records first: what moves their dates, or does their lines, holds them, and waits.
            $facts->rememberRecords($page->on, Columns::ints(RuleRun::rows()->whereIn('id', $chunk)->distinct()->pluck('record_id')));
            $inked = [];
            $ended = ScheduledLine::rows()->whereIn('run_id', $chunk)->whereNotIn('status', LineStatus::TO_COME)->distinct();
            foreach ($ended->get(['run_id', 'place']) as $row) {
                $inked[(int) $row->run_id][(int) $row->place] = true;
            }
            $runs = RunsInPlay::byIds($chunk);
            foreach ($runs as $run) {
                foreach ($this->one($run, $page, $facts, $inked[$run->id] ?? [], $apply) as $what => $number) {
                    $count[$what] += $number;
                }
                $count['runs']++;
            }
            if ($apply) {
                RuleRun::rows()->whereIn('id', $chunk)->update(['page' => $page->page]);
                RuleRun::close($chunk);
            }
        }

        return $count;
    }

    /**
     * @param  array<int, true>  $inked  places whose line has come to its end
     * @return array{moved: int, struck: int, added: int}
     */
    private function one(Run $run, Rule $page, StoredFacts|PaperFacts $facts, array $inked, bool $apply): array
    {
        $count = ['moved' => 0, 'struck' => 0, 'added' => 0];
        $record = $facts->record($run->type, $run->record);
        if ($record === null) {
            return $count;
        }
        $type = $this->schemas->schema()->types[$run->type];
        $waiting = [];
        foreach ($run->lines as $line) {
            $waiting[$line->place] = $line;
        }
        $view = new View($record, $facts);
        $isTrue = static fn (Placed $placed): bool => ($placed->timing?->becomes()?->compile() ?? static fn (): bool => false)($view);
        $due = function (Placed $placed, ?PencilledLine $line, ?\DateTimeImmutable $met) use (
            $run, $record, $type, $facts, $page,
        ): ?\DateTimeImmutable {
            $waitsFor = $placed->timing?->waitsFor();
            $tasks = $waitsFor === null ? null : $facts->tasksOf($run->id, $waitsFor);
            $occasion = ActionContext::occasionOf(
                record: $record, type: $type, facts: $facts, zone: $this->company->zone(),
                started: $line?->countedFrom() ?? $run->startedAt, tasks: $tasks, turn: $line->turn ?? 1,
                met: $met,
            );
            $at = $placed->timing === null ? null : $occasion->when($placed->timing);

            return $at === null || $page->limits === null ? $at : $page->limits->allowed($at, $occasion);
        };
        $undecided = self::undecided($page, $inked);
        foreach ($page->lines as $placed) {
            if ($placed->timing === null) {
                continue;
            }
            $line = $waiting[$placed->place] ?? null;
            if (! isset($undecided[$placed->place])) {
                unset($waiting[$placed->place]);
            }
            $met = $line->met ?? ($isTrue($placed) ? $this->clock->now() : null);
            $at = $due($placed, $line, $met);
            if ($line !== null && ! isset($undecided[$placed->place])) {
                $count['moved'] += $at?->getTimestamp() === $line->due?->getTimestamp() ? 0 : 1;
                if ($apply) {
                    ScheduledLine::rows()->where('id', $line->id)->update([
                        'due_at' => $at === null ? null : Columns::moment($at), 'page' => $page->page, 'kind' => $placed->kind,
                        'met_at' => $met === null ? null : Columns::moment($met),
                        'said' => mb_substr($placed->said, 0, 200),
                    ]);
                }

                continue;
            }
            $isAhead = $at === null || $met !== null || $at > $this->clock->now();
            if ($placed->under === null && ! isset($inked[$placed->place]) && $isAhead) {
                $count['added']++;
                if ($apply) {
                    ScheduledLine::query()->create([
                        'sort' => LineSort::Line, 'kind' => $placed->kind, 'due_at' => $at, 'met_at' => $met,
                        'record_type' => $run->type,
                        'record_id' => $run->record,
                        'entry_id' => $run->entry, 'run_id' => $run->id, 'rule_id' => $page->id, 'page' => $page->page,
                        'place' => $placed->place, 'said' => mb_substr($placed->said, 0, 200),
                    ]);
                }
            }
        }
        $gone = array_map(static fn (PencilledLine $line): int => $line->id, array_values($waiting));
        if ($gone !== []) {
            $count['struck'] += count($gone);
            if ($apply) {
                ScheduledLine::rows()->whereIn('id', $gone)->update(ScheduledLine::struck(
                    StruckCode::NewPage,
                    'the new page has no such line',
                ));
            }
        }

        return $count;
    }

    /**
     * Places of lines in cases that are decided later: what stands there comes with its case, and not before.
     *
     * @param  array<int, true>  $inked  places whose line has come to its end
     * @return array<int, true>
     */
    private static function undecided(Rule $page, array $inked): array
    {
        $open = [];
        foreach ($page->lines as $placed) {
            $isOpen = $placed->timing !== null && ! isset($inked[$placed->place]);
            if ($placed->line instanceof Cases && ($isOpen || isset($open[$placed->place]))) {
                foreach ($placed->line->branches as $branch) {
                    $open += array_fill_keys(array_map(static fn (Placed $line): int => $line->place, $branch->lines), true);
                }
            }
        }

        return $open;
    }
}
