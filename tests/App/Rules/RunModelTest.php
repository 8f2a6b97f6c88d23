<?php

declare(strict_types=1);

namespace Tests\App\Rules;

use Illuminate\Support\Facades\DB;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\App\Support\PaperRun;
use Tests\App\Support\TimeTestCase;

/**
 * Random stories of saves, moved dates, pauses, restarts and time passing: what the ledger holds in the end is what a plain
 * model on paper says, and no guard key was used twice.
 */
final class RunModelTest extends TimeTestCase
{
    private const STORIES = 14;

    private const STEPS = 16;

    private const RULE = [
        'name' => 'In time', 'on' => 'ticket', 'when' => ['kind' => 'created_or_changed'], 'onlyIf' => [
            'kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'waiting']],
        ], 'fires' => ['kind' => 'becomes_true'],
        'lines' => [
            ['kind' => 'comment', 'text' => '0'],
            ['kind' => 'comment', 'text' => '1', 'at' => ['kind' => 'after', 'amount' => 2, 'unit' => 'day']],
            ['kind' => 'comment', 'text' => '2', 'at' => ['kind' => 'date', 'field' => 'due', 'amount' => -1, 'unit' => 'day']],
            ['kind' => 'comment', 'text' => '3', 'at' => ['kind' => 'every', 'amount' => 3, 'unit' => 'day', 'times' => 4]],
        ],
        'until' => ['kind' => 'is_not', 'field' => 'status', 'value' => 'waiting'],
    ];

    public function test_the_ledger_ends_as_the_model_on_paper(): void
    {
        $inked = 0;
        for ($seed = 1; $seed <= self::STORIES; $seed++) {
            DB::beginTransaction();
            $inked += $this->story(new Randomizer(new Mt19937($seed)), "seed {$seed}");
            DB::rollBack();
        }
        self::assertGreaterThan(self::STORIES * 3, $inked, 'The stories have to bring lines into ink.');
    }

    private function story(Randomizer $random, string $seed): int
    {
        $this->forgetEverything();
        $this->clockAt(self::NOW);
        $rule = $this->inForce(self::RULE);
        $now = (int) strtotime(self::NOW);
        $tickets = $papers = $status = $due = [];
        foreach (range(0, 2) as $index) {
            $due[$index] = $random->getInt(0, 2) === 0 ? null : $this->day($now, $random);
            $tickets[$index] = $this->ticket(['due' => $due[$index]])['record']['id'];
            $status[$index] = 'open';
            $papers[$index] = [];
        }
        $told = 0;
        for ($step = 0; $step < self::STEPS; $step++) {
            $index = $random->getInt(0, 2);
            $run = end($papers[$index]) ?: null;
            switch ($random->getInt(1, 7)) {
                case 1:
                case 2:
                    $next = $status[$index] === 'waiting' ? ($random->getInt(0, 2) === 0 ? 'open' : 'waiting') : 'waiting';
                    $this->change($this->now('ticket', $tickets[$index]), ['status' => $next]);
                    if ($next === 'waiting' && $status[$index] !== 'waiting') {
                        $papers[$index][] = new PaperRun($now, $this->midnight($due[$index]));
                    } elseif ($next !== 'waiting') {
                        $run?->strike();
                    }
                    $status[$index] = $next;
                    break;
                case 3:
                    $due[$index] = $random->getInt(0, 3) === 0 ? null : $this->day($now, $random);
                    $this->change($this->now('ticket', $tickets[$index]), ['due' => $due[$index]]);
                    $run?->dueMoved($this->midnight($due[$index]));
                    break;
                case 4:
                    // A pause in which no time passes changes nothing in the end.
                    $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'paused'])->assertOk();
                    $this->workNow();
                    $this->as('ines.okafor', 'POST', "rules/{$rule}/status", ['status' => 'in_force'])->assertOk();
                    break;
                case 5:
                    // A worker that starts anew remembers nothing.
                    $this->forgetEverything();
                    $this->clockAt(gmdate('c', $now));
                    break;
                default:
                    $now += $random->getInt(1, 80) * 3600;
                    $this->passTo(gmdate('Y-m-d\TH:i:s\Z', $now));
            }
            foreach ($papers as $which => $runs) {
                foreach ($runs as $paper) {
                    $paper->passTo($now);
                }
                self::assertSame($this->onPaper($runs), $this->inTheLedger($tickets[$which]), "{$seed}, step {$step}, ticket {$which}");
            }
            // What the change itself made due is done by the next worker.
            $this->workNow();
        }
        foreach ($tickets as $which => $id) {
            $comments = DB::table('comments')->where('record_id', $id)->pluck('text')->countBy()->all();
            $lines = array_merge(
                ...array_map(
                    static fn (PaperRun $run): array => array_keys(array_filter(
                        $run->lines,
                        static fn (array $line): bool => $line[0] === 'inked',
                    )),
                    $papers[$which],
                ) ?: [[]],
            );
            foreach ([1, 2, 3] as $place) {
                self::assertSame(
                    count(array_filter($lines, static fn (string $key): bool => (int) $key === $place)),
                    $comments[$place] ?? 0,
                    "{$seed}, ticket {$which}, line {$place}",
                );
            }
            self::assertSame(count($papers[$which]), $comments[0] ?? 0, $seed);
            $told += count($lines);
        }
        self::assertSame(
            0,
            (int) DB::scalar('SELECT COUNT(*) - COUNT(DISTINCT rule_id, record_type, record_id, epoch, guard_key) FROM guard_keys'),
        );

        return $told;
    }

    /**
     * @param  list<PaperRun>  $runs
     * @return list<string>
     */
    private function onPaper(array $runs): array
    {
        $lines = [];
        foreach ($runs as $run) {
            foreach ($run->lines as $key => [$state, $at]) {
                $lines[] = "{$key} {$state}".($state === 'pencilled' && $at !== null ? ' '.gmdate('Y-m-d H:i:s', $at) : '');
            }
        }
        sort($lines);

        return $lines;
    }

    /** @return list<string> */
    private function inTheLedger(int $record): array
    {
        $this->workNow();
        $lines = array_map(
            static fn (object $row): string => "{$row->place}/{$row->turn} {$row->status}".($row->status === 'pencilled'
                && $row->due_at !== null ? " {$row->due_at}" : ''),
            DB::select("SELECT * FROM scheduled_lines WHERE record_id = ? AND kind <> 'task_due'", [$record]),
        );
        sort($lines);

        return $lines;
    }

    private function day(int $now, Randomizer $random): string
    {
        return gmdate('Y-m-d', $now + $random->getInt(-1, 14) * 86_400);
    }

    private function midnight(?string $day): ?int
    {
        return $day === null ? null : (new \DateTimeImmutable($day, new \DateTimeZone('Europe/Berlin')))->getTimestamp();
    }
}
