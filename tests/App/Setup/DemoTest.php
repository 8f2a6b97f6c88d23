<?php

declare(strict_types=1);

namespace Tests\App\Setup;

use App\Demo\Demo;
use App\Demo\ServiceHistory;
use App\Http\Ledger\EntryResources;
use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Store\Ledger\EntriesIntoData;
use App\Store\People\PeopleStore;
use App\Store\Records\RecordHistory;
use App\Store\Rules\WhyNot;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Yaml\Yaml;
use Tests\App\Support\AppTestCase;
use VividLedger\Engine\Reason;
use VividLedger\Explain\EntryWords;
use VividLedger\Record\Display;

/** A small Larkmoss, played through: the same seed gives the same ledger, and the ledger explains itself. */
final class DemoTest extends AppTestCase
{
    private const SHARE = 0.07;

    private const UNTIL = '2026-11-24T08:40:00Z';

    public function test_the_same_seed_gives_the_same_history(): void
    {
        $ledgers = [];
        foreach ([1, 1, 2] as $seed) {
            DB::beginTransaction();
            $this->play($seed);
            $first = (int) DB::table('entries')->min('id');
            // Ids go on counting after a roll-back; everything else has to be the same.
            $ledgers[] = DB::select(
                "SELECT id - {$first} AS number, kind, at, actor_id, version, JSON_VALUE(data, '$.why.trigger') AS why, JSON_QUERY(data, "
                    ."'$.changes') AS changes FROM entries ORDER BY id",
            );
            DB::rollBack();
        }
        $plain = static fn (array $rows): array => array_map(static fn (object $row): array => (array) $row, $rows);

        self::assertGreaterThan(150, count($ledgers[0]));
        self::assertSame(array_column($plain($ledgers[0]), 'kind'), array_column($plain($ledgers[1]), 'kind'));
        self::assertSame(
            array_map(static fn (array $row): array => [$row['at'], $row['actor_id'], $row['why']], $plain($ledgers[0])),
            array_map(static fn (array $row): array => [$row['at'], $row['actor_id'], $row['why']], $plain($ledgers[1])),
        );
        self::assertNotSame(array_column($plain($ledgers[0]), 'at'), array_column($plain($ledgers[2]), 'at'));
    }

    public function test_the_ledger_explains_every_firing_and_every_record_at_any_time(): void
    {
        $this->play(3);
        self::assertEqualsCanonicalizing(
            [
                'created', 'changed', 'comment', 'fired', 'refused', 'task_done', 'task_due', 'rule_in_force', 'rule_in_set', 'gathered',
                'line', 'retimed', 'struck', 'sign_off', 'signed_off', 'waits_for_release',
                'slip', 'hook_brought', 'task_lapsed',
            ],
            DB::table('entries')->distinct()->pluck('kind')->all(),
        );
        $whyNot = $this->app->make(WhyNot::class);
        $fired = 0;
        foreach (DB::select("SELECT id FROM entries WHERE kind IN ('created', 'changed', 'comment', 'task_done', 'hook_brought') "
            ."AND via <> 'rule' ORDER BY id") as $save) {
            $rules = array_column(
                DB::select(
                    'WITH RECURSIVE chain AS (SELECT id, rule_id, kind FROM entries WHERE cause_id = ? UNION ALL SELECT e.id, e.rule_id, '
                        ."e.kind FROM entries e JOIN chain c ON e.cause_id = c.id WHERE e.kind IN ('fired', 'changed', 'created', "
                            ."'comment')) SELECT rule_id FROM chain WHERE kind = 'fired'",
                    [$save->id],
                ),
                'rule_id',
            );
            $answers = $whyNot->answers((int) $save->id);
            $said = array_column(array_filter($answers, static fn (array $answer): bool => $answer['firedIn'] !== null), 'rule');
            foreach ($answers as $answer) {
                self::assertTrue(
                    $answer['firedIn'] !== null || $answer['verdict']->reason !== Reason::Fires,
                    "entry {$save->id}: {$answer['name']} did not fire, and the ledger says why",
                );
            }
            // Rules of other records, set off by what these did, were not asked about this save.
            self::assertEqualsCanonicalizing(
                array_values(array_intersect($rules, array_column($answers, 'rule'))),
                $said,
                "entry {$save->id}",
            );
            $fired += count($rules);
        }
        $byTime = (int) DB::scalar(
            "WITH RECURSIVE chain AS (SELECT id, kind FROM entries WHERE kind = 'line' OR (kind = 'fired' AND cause_id IS NULL) UNION ALL "
                ."SELECT e.id, e.kind FROM entries e JOIN chain c ON e.cause_id = c.id WHERE e.kind IN ('fired', 'changed', 'created', "
                    ."'comment')) SELECT COUNT(DISTINCT id) FROM chain WHERE kind = 'fired'",
        );
        self::assertSame(
            DB::table('entries')->where('kind', 'fired')->count(),
            $fired + $byTime,
            'every firing hangs on a save, or on what time brought about',
        );
        $this->everyRecordCanBeRebuilt();
        $this->everyEntryComesOverFromSentences();
        self::assertSame(
            0,
            DB::table('scheduled_lines')->where('status', 'pencilled')->where('due_at', '<=', '2026-11-24 08:40:00')->count(),
            'what fell due is in ink',
        );
    }

    /** Entries as earlier versions kept them, in words, are turned into data again, and each says what it said. */
    private function everyEntryComesOverFromSentences(): void
    {
        $shapes = $this->app->make(EntryResources::class);
        $names = $this->app->make(PeopleStore::class);
        $schema = $this->app->make(SchemaStore::class)->schema();
        $words = new EntryWords($schema, $names, new Display($names, $this->app->make(Company::class)->zone()));
        $said = [];
        $kept = [];
        foreach (Entry::query()->with(['actor', 'rule', 'fields'])->lazyById() as $entry) {
            $shape = $shapes->of($entry);
            $said[$entry->id] = (string) json_encode([
                $shape->head, $shape->headInLedger, $shape->detail, $shape->changes, $shape->outcomes,
            ]);
            $kept[$entry->id] = $entry->data;
            $told = $words->data($entry->data);
            foreach ($told['did'] ?? [] as $place => $did) {
                $made = $entry->data['did'][$place]['record'] ?? null;
                $told['did'][$place] += $made === null ? [] : ['type' => $made['type'], 'id' => $made['id']];
            }
            DB::table('entries')->where('id', $entry->id)->update([
                'data' => json_encode($told + ($shape->changes === [] ? [] : ['changes' => $shape->changes])),
            ]);
        }
        self::assertGreaterThan(1000, count($said));
        $this->app->make(EntriesIntoData::class)->run();
        $whole = $ever = 0;
        foreach (Entry::query()->with(['actor', 'rule', 'fields'])->lazyById() as $entry) {
            $shape = $shapes->of($entry);
            self::assertSame(
                $said[$entry->id],
                json_encode([$shape->head, $shape->headInLedger, $shape->detail, $shape->changes, $shape->outcomes]),
                "entry {$entry->id}, a {$entry->kind}",
            );
            self::assertArrayNotHasKey('changes', $entry->data);
            // No version ever kept what happens to sign-offs in words, so there is nothing to turn back.
            if (! in_array($entry->kind, ['sign_off', 'waits_for_release'], true)) {
                $ever++;
                $whole += $entry->data == $kept[$entry->id] ? 1 : 0;
            }
        }
        self::assertGreaterThan(1000, $ever);
        self::assertGreaterThan(0.9 * $ever, $whole, 'nearly all of them are data again, and not words that stayed');
    }

    private function everyRecordCanBeRebuilt(): void
    {
        $history = $this->app->make(RecordHistory::class);
        $type = $this->app->make(SchemaStore::class)->schema()->types['ticket'];
        foreach (DB::select('SELECT * FROM records_ticket') as $row) {
            $now = Columns::record($type, $row);
            $entries = array_column(
                DB::select(
                    "SELECT id FROM entries WHERE record_type = 'ticket' AND record_id = ? AND kind IN ('created', 'changed', 'fired') "
                        .'ORDER BY id',
                    [$now->id],
                ),
                'id',
            );
            $previous = null;
            foreach ($entries as $index => $entry) {
                $then = $history->recordAfter($type, $now->id, (int) $entry);
                self::assertNotNull($then);
                foreach (DB::select('SELECT field, `before`, `after` FROM field_history WHERE entry_id = ?', [$entry]) as $field) {
                    self::assertSame(json_decode($field->after, true), $then->value($field->field), "entry {$entry}, {$field->field}");
                    self::assertSame(
                        json_decode($field->before, true),
                        $previous?->value($field->field),
                        "entry {$entry}, {$field->field} before",
                    );
                }
                $previous = $then;
                if ($index === count($entries) - 1) {
                    self::assertSame(
                        array_diff_key($now->values, ['updated_at' => 0, 'updated_by' => 0]),
                        array_diff_key($then->values, ['updated_at' => 0, 'updated_by' => 0]),
                    );
                }
            }
            self::assertNull($history->recordAfter($type, $now->id, (int) $entries[0] - 1), 'before it was created there was nothing');
        }
    }

    private function play(int $seed): void
    {
        $this->forgetEverything();
        $until = new \DateTimeImmutable(self::UNTIL);
        $this->clockAt($until->modify('-18 months -1 day')->format('c'));
        $this->app->make(Demo::class)->loadRules();
        $this->app->make(ServiceHistory::class)->play($until, Yaml::parseFile(database_path(
            'demo/words.yaml',
        )), $seed, $this->app->make(Demo::class)->loadRulesInTime(...), static function (): void {
        }, self::SHARE);
    }
}
