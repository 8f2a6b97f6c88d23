<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use Illuminate\Database\Connection;
use VividLedger\Engine\PencilledLine;
use VividLedger\Engine\Performance;
use VividLedger\Engine\Run;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Rule;

/**
 * Moves runs that are in play to the next page of their rule. A line keeps its place on the page: one still to come gets the
 * new page's time, one that is gone is struck out, and one that is new is pencilled in unless its time has passed.
 */
final readonly class RunMover
{
    public function __construct(
        private Connection $db,
        private SchemaStore $schemas,
        private Company $company,
        private HouseClock $clock,
    ) {
    }

    public function inPlay(int $rule): int
    {
        return (int) $this->db->scalar("SELECT COUNT(*) FROM rule_runs WHERE rule_id = ? AND status = 'in_play'", [$rule]);
    }

    /**
     * @param  bool  $apply  otherwise it is only counted
     * @return array{runs: int, moved: int, struck: int, added: int} how many runs, and what becomes of their lines
     */
    public function move(Rule $page, bool $apply): array
    {
        $count = ['runs' => 0, 'moved' => 0, 'struck' => 0, 'added' => 0];
        $ids = array_map(static fn (object $row): int => (int) $row->id, $this->db->select("SELECT id FROM rule_runs WHERE rule_id = ? AND status = 'in_play' AND page <> ? ORDER BY id", [$page->id, $page->page]));
        foreach (array_chunk($ids, 200) as $chunk) {
            $inked = [];
            foreach ($this->db->select('SELECT DISTINCT run_id, place FROM scheduled_lines WHERE run_id IN ('.implode(', ', $chunk).") AND status NOT IN ('pencilled', 'held')") as $row) {
                $inked[(int) $row->run_id][(int) $row->place] = true;
            }
            $facts = new StoredFacts($this->db, $this->schemas, $this->clock->now(), $this->company->zone());
            foreach (RunsInPlay::byIds($this->db, $chunk) as $run) {
                foreach ($this->one($run, $page, $facts, $inked[$run->id] ?? [], $apply) as $what => $number) {
                    $count[$what] += $number;
                }
                $count['runs']++;
            }
            if ($apply) {
                $this->db->update('UPDATE rule_runs SET page = ? WHERE id IN ('.implode(', ', $chunk).')', [$page->page]);
                LineRows::close($this->db, $chunk);
            }
        }

        return $count;
    }

    /**
     * @param  array<int, true>  $inked  places whose line has come to its end
     * @return array{moved: int, struck: int, added: int}
     */
    private function one(Run $run, Rule $page, StoredFacts $facts, array $inked, bool $apply): array
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
        $due = function (Placed $placed, int $turn) use ($run, $record, $type, $facts, $page): ?\DateTimeImmutable {
            $waitsFor = $placed->timing?->waitsFor();
            $occasion = Performance::occasionOf($record, $type, $facts, $this->company->zone(), $run->startedAt, $waitsFor === null ? null : $facts->tasksOf($run->id, $waitsFor), $turn);
            $at = $placed->timing === null ? null : $occasion->when($placed->timing);

            return $at === null || $page->limits === null ? $at : $page->limits->allowed($at, $occasion);
        };
        foreach ($page->lines as $placed) {
            if ($placed->timing === null) {
                continue;
            }
            $line = $waiting[$placed->place] ?? null;
            unset($waiting[$placed->place]);
            $at = $due($placed, $line->turn ?? 1);
            if ($line !== null) {
                $count['moved'] += $at?->getTimestamp() === $line->due?->getTimestamp() ? 0 : 1;
                if ($apply) {
                    $this->db->update('UPDATE scheduled_lines SET due_at = ?, page = ?, kind = ?, said = ? WHERE id = ?', [$at === null ? null : Columns::moment($at), $page->page, $placed->kind, mb_substr($placed->said, 0, 200), $line->id]);
                }
            } elseif (! isset($inked[$placed->place]) && ($at === null || $at > $this->clock->now())) {
                $count['added']++;
                if ($apply) {
                    Batch::insert($this->db, 'scheduled_lines', [[
                        'kind' => $placed->kind, 'due_at' => $at === null ? null : Columns::moment($at), 'record_type' => $run->type, 'record_id' => $run->record, 'entry_id' => $run->entry,
                        'run_id' => $run->id, 'rule_id' => $page->id, 'page' => $page->page, 'place' => $placed->place, 'said' => mb_substr($placed->said, 0, 200),
                    ]]);
                }
            }
        }
        $gone = array_map(static fn (PencilledLine $line): int => $line->id, array_values($waiting));
        if ($gone !== []) {
            $count['struck'] += count($gone);
            if ($apply) {
                $this->db->update(
                    "UPDATE scheduled_lines SET status = 'struck', struck_code = 'new_page', struck_because = 'the new page has no such line' WHERE id IN (".implode(', ', $gone).')',
                );
            }
        }

        return $count;
    }
}
