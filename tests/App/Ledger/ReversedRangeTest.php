<?php

declare(strict_types=1);

namespace Tests\App\Ledger;

use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\TimeTestCase;
use Tests\Core\Support\WholeRange;

/**
 * Whatever a rule did to records that were there before it, with whichever lines, over days: reversed, they stand as if it had never been
 * in force.
 */
final class ReversedRangeTest extends TimeTestCase
{
    private const RULES = 120;

    private const CHANGE = ['status' => 'waiting', 'priority' => 'urgent', 'cost' => '620'];

    public function test_reversed_it_is_as_if_it_had_never_been(): void
    {
        $done = ['fields' => 0, 'tasks' => 0, 'lines' => 0, 'others' => 0];
        for ($seed = 1; $seed <= self::RULES; $seed++) {
            DB::beginTransaction();
            foreach ($this->story($seed) as $what => $count) {
                $done[$what] += $count;
            }
            DB::rollBack();
            $this->forgetEverything();
        }
        self::assertGreaterThan(5, min($done), json_encode($done));
    }

    /** @return array<string, int> how much there was to reverse */
    private function story(int $seed): array
    {
        $this->clockAt(self::NOW);
        $ticket = $this->written(['status' => 'open', 'priority' => 'normal', 'due' => '2026-11-27', 'cost' => '40'])['id'];
        $range = new WholeRange(
            $seed,
            $this->app->make(SchemaStore::class)->schema(),
            $this->app->make(\VividLedger\House\Directory::class),
            new \DateTimeZone('Europe/Berlin'),
            ['ines.okafor', 'tomas.weld'],
            $this->oneOfEach(),
        );
        $file = $range->rule("Rule {$seed}");
        $file['when'] = ['kind' => 'changed'];
        $file['lines'] = array_values(array_filter(
            $file['lines'],
            static fn (array $line): bool => ! in_array($line['kind'], ['refuse', 'send_list'], true),
        ));
        $file['lines'][] = ['kind' => 'set_fields', 'set' => [['field' => 'review', 'to' => ['kind' => 'value', 'value' => 'needed']]]];
        unset($file['onlyIf'], $file['until']);

        DB::beginTransaction();
        $this->becomes($ticket, self::CHANGE);
        $without = $this->records();
        DB::rollBack();

        $rule = $this->inForce($file);
        $this->becomes($ticket, self::CHANGE);
        $this->workNow();
        $this->passTo('2026-11-30T12:00:00Z');
        $made = DB::table('entries')->where('kind', 'created')->whereNotNull('cause_id')->get(['record_type', 'record_id'])->map(
            static fn (object $row): string => "{$row->record_type}:{$row->record_id}",
        )->all();
        $with = array_diff_key($this->records(), array_flip($made));
        $span = ['rule' => $rule, 'from' => '2026-01-01T00:00:00Z', 'until' => '2027-01-01T00:00:00Z'];
        $preview = $this->as('ines.okafor', 'POST', 'reversals/preview', $span)->assertOk()->json();
        self::assertSame([], $preview['conflicts'], "seed {$seed}: nobody has changed anything since");
        foreach (array_chunk($preview['entries'], 20) as $some) {
            $this->as('ines.okafor', 'POST', 'reversals', ['entries' => $some])->assertOk();
        }
        $what = "seed {$seed}: ".json_encode($file, JSON_PRETTY_PRINT);
        self::assertSame($without, array_diff_key($this->records(), array_flip($made)), $what);
        self::assertSame(0, DB::table('tasks')->where('status', 'open')->where('rule_id', $rule)->count(), $what);
        self::assertSame(
            0,
            DB::table('scheduled_lines')->where('rule_id', $rule)->where('status', 'pencilled')->where('kind', '<>', 'task_due')->count(),
            $what,
        );
        self::assertSame(
            [],
            $this->as('ines.okafor', 'POST', 'reversals/preview', $span)->json('entries'),
            'and nothing is left to reverse',
        );

        return [
            'fields' => $preview['fields'], 'tasks' => $preview['tasks'], 'lines' => $preview['lines'],
            'others' => count(array_filter(
                $without,
                static fn (array $was, string $key): bool => $key !== "ticket:{$ticket}" && $with[$key] !== $was,
                ARRAY_FILTER_USE_BOTH,
            )),
        ];
    }

    /** @return array<string, array<string, mixed>> what every record holds, by type and id, without stamps */
    private function records(): array
    {
        $records = [];
        foreach (array_keys($this->app->make(SchemaStore::class)->schema()->types) as $type) {
            foreach (DB::select("SELECT * FROM records_{$type} ORDER BY id") as $row) {
                $records["{$type}:{$row->id}"] = array_diff_key((array) $row, array_flip(['version', 'updated_at', 'updated_by']));
            }
        }

        return $records;
    }
}
