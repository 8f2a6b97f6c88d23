<?php

declare(strict_types=1);

namespace Tests\App\Records;

use App\Models\Records\StoredRecord;
use App\Store\LedgerConnection;
use App\Store\Records\RecordWriter;
use App\Store\Records\SaveRecord;
use App\Store\Sql\Lock;
use App\Store\Sql\LostToAnother;
use App\Store\Sql\RecordSql;
use App\Store\Types\SchemaStore;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\Families;
use Tests\App\Support\RunsTogether;
use VividLedger\Record\Record;

/**
 * Rules that read, count and write records which others save at the same moment: whatever many do at once is as if one had done it
 * after the other.
 */
final class RelatedRaceTest extends AppTestCase
{
    use RunsTogether;

    private const SAVES = 14;

    private const RULES = 6;

    protected function tearDown(): void
    {
        DB::table('rules')->update(['status' => 'retired']);
        DB::table('rule_watches')->delete();
        parent::tearDown();
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach ([1, 2, 3, 4, 5] as $seed) {
            yield "seed {$seed}" => [$seed];
        }
    }

    /** The ledger numbers saves in the order in which they came; done again one by one in that order, they come to the same. */
    #[DataProvider('seeds')]
    public function test_what_many_save_at_once_is_as_if_saved_one_after_another(int $seed): void
    {
        $families = new Families($seed);
        $rules = [];
        for ($nth = 1; $nth <= self::RULES; $nth++) {
            $rules[] = $this->inForce($families->rule("Rule {$nth}"));
        }
        $race = $this->family("race {$seed}");
        $begin = (string) (int) (1000 * microtime(true) + 1500);
        $saves = [];
        foreach ($this->together(['tests/App/Support/save_related.php', (string) $seed, (string) self::SAVES, $begin]) as $printed) {
            foreach (array_filter(explode("\n", $printed)) as $line) {
                $saves[] = json_decode($line, true, 8, JSON_THROW_ON_ERROR);
            }
        }
        usort($saves, static fn (array $one, array $other): int => $one['entry'] <=> $other['entry']);
        self::assertGreaterThan(self::PROCESSES * self::SAVES / 2, count($saves));

        $alone = $this->family("alone {$seed}");
        $types = $this->app->make(SchemaStore::class)->schema()->types;
        foreach ($saves as $save) {
            Families::saved($save, "alone {$seed}", $types, $this->app->make(SaveRecord::class), $this->app->make(LedgerConnection::class));
        }
        self::assertGreaterThan(2, array_sum($this->fired($rules, $alone)), 'rules answer');
        self::assertSame($this->looks($alone), $this->looks($race), 'the same records');
        self::assertSame($this->fired($rules, $alone), $this->fired($rules, $race), 'the same firings');
    }

    /** A rule that counts three open tickets, and six that are made at the same moment: it fires once, never twice and never not at all. */
    public function test_a_count_is_reached_once(): void
    {
        $rule = $this->inForce($this->demoFile('090-open-tickets'));
        $customers = [];
        for ($nth = 0; $nth < 12; $nth++) {
            $customers[] = $this->customer("New {$nth}")['id'];
        }
        $this->together(['tests/App/Support/make_tickets.php', implode(',', $customers)]);

        $fired = DB::table('entries')->where(['rule_id' => $rule, 'kind' => 'fired'])->selectRaw('record_id, COUNT(*) AS n')
            ->groupBy('record_id')->pluck('n', 'record_id')->map(intval(...))->all();
        self::assertEquals(array_fill_keys($customers, 1), $fired);
    }

    /** Whoever alters what a rule counts holds the record it is counted for, though nothing answers the save. */
    public function test_who_alters_what_is_counted_waits_for_who_counts(): void
    {
        $this->inForce(['name' => 'Counts', 'on' => 'customer', 'when' => ['kind' => 'changed', 'fields' => ['depot']],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'over', 'value' => '4', 'total' => [
                'of' => 'count', 'relation' => 'ticket.customer',
                'where' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'status', 'value' => 'open']]],
            ]]]], 'fires' => ['kind' => 'every_time'], 'lines' => [['kind' => 'comment', 'text' => 'Many']]]);
        $ticket = $this->ticket()['record'];
        $held = function (array $values) use ($ticket): array {
            DB::beginTransaction();
            $this->becomes($ticket['id'], $values);
            $held = [];
            foreach (['customer' => $ticket['values']['customer']['id'] ?? $ticket['values']['customer'],
                'ticket' => $ticket['id']] as $type => $id) {
                $held[$type] = $this->isHeld($type, (int) $id);
            }
            DB::rollBack();

            return $held;
        };

        self::assertSame(['customer' => true, 'ticket' => true], $held(['status' => 'waiting']));
        self::assertSame(['customer' => false, 'ticket' => true], $held(['notes' => 'nothing that counts']));
    }

    /**
     * A transaction that lost to another takes all its locks first when it is begun again: tickets before their customer, each by
     * its id.
     */
    public function test_what_lost_is_begun_again_with_all_its_locks(): void
    {
        $tickets = [$this->ticket()['record'], $this->ticket()['record']];
        $schema = $this->app->make(SchemaStore::class)->schema();
        $customer = (int) DB::table('records_ticket')->where('id', $tickets[0]['id'])->value('customer');
        $tries = 0;
        $seen = [];
        DB::enableQueryLog();
        $this->app->make(LedgerConnection::class)->transaction(function () use (&$tries, &$seen, $tickets, $customer, $schema): void {
            if (++$tries === 1) {
                RecordSql::record($schema->types['customer'], $customer, Lock::WRITE);
                RecordSql::record($schema->types['ticket'], $tickets[1]['id'], Lock::WRITE);
                RecordSql::record($schema->types['ticket'], $tickets[0]['id'], Lock::WRITE);
                DB::flushQueryLog();
                throw new LostToAnother('on purpose');
            }
            $seen = [$this->isHeld('customer', $customer), $this->isHeld('ticket', $tickets[0]['id']),
                $this->isHeld('ticket', $tickets[1]['id'])];
        });
        DB::disableQueryLog();

        self::assertSame([2, [true, true, true]], [$tries, $seen]);
        $locking = array_values(array_filter(array_column(DB::getQueryLog(), 'query'),
            static fn (string $sql): bool => str_contains($sql, Lock::WRITE)));
        self::assertStringContainsString('records_ticket', $locking[0]);
        self::assertStringContainsString('records_customer', $locking[1]);
    }

    /** What was read in a version that is gone is not written over, alone or among many. */
    public function test_a_write_names_the_version_it_read(): void
    {
        $type = $this->app->make(SchemaStore::class)->schema()->types['ticket'];
        $ids = [$this->ticket()['record']['id'], $this->ticket()['record']['id']];
        $was = array_values(RecordSql::records($type, $ids));
        $next = array_map(static fn (Record $record): Record => new Record($record->type, $record->id, $record->version + 1,
            ['notes' => 'late'] + $record->values), $was);
        $this->becomes($ids[1], ['notes' => 'first']);
        foreach ([[[$was[1], $next[1]]], [[$was[0], $next[0]], [$was[1], $next[1]]]] as $writes) {
            DB::beginTransaction();
            try {
                $this->app->make(RecordWriter::class)->write($writes, new \DateTimeImmutable);
                self::fail('It was written.');
            } catch (LostToAnother) {
                DB::rollBack();
            }
        }

        self::assertSame([null, 'first'], StoredRecord::rowsOf('ticket')->whereIn('id', $ids)->orderBy('id')->pluck('notes')->all());
    }

    /** Whether somebody else would have to wait for a record. */
    private function isHeld(string $type, int $id): bool
    {
        config(['database.connections.another' => config('database.connections.mariadb')]);
        try {
            DB::connection('another')->select('SELECT id FROM '.StoredRecord::tableOf($type).' WHERE id = ? FOR UPDATE NOWAIT', [$id]);

            return false;
        } catch (QueryException) {
            return true;
        } finally {
            DB::purge('another');
        }
    }

    /** @return list<int> ids of customers; each has tickets */
    private function family(string $name): array
    {
        $rules = DB::table('rule_watches')->get()->map(static fn (object $row): array => (array) $row)->all();
        DB::table('rule_watches')->delete();
        $customers = [];
        for ($nth = 1; $nth <= Families::CUSTOMERS; $nth++) {
            $customers[] = $this->created('customer',
                ['name' => "{$name} customer {$nth}", 'status' => 'active', 'open_tickets' => '0'])['record']['id'];
        }
        for ($nth = 1; $nth <= 2 * Families::CUSTOMERS; $nth++) {
            $this->ticket(['subject' => "{$name} ticket {$nth}", 'customer' => $customers[$nth % Families::CUSTOMERS], 'hours' => '1']);
        }
        DB::table('rule_watches')->insert($rules);

        return $customers;
    }

    /**
     * @param  list<int>  $customers
     * @return array<string, list<mixed>> what their records hold, by name
     */
    private function looks(array $customers): array
    {
        $looks = [];
        $short = static fn (string $name): string => (string) preg_replace('/^\w+ \d+ /', '', $name);
        foreach (StoredRecord::rowsOf('customer')->whereIn('id', $customers)->get() as $row) {
            $looks[$short($row->name)] = [$row->status, $row->depot, $row->open_tickets, (int) $row->version];
        }
        foreach (StoredRecord::rowsOf('ticket')->whereIn('customer', $customers)->get() as $row) {
            $looks[$short($row->subject)] = [array_search((int) $row->customer, $customers, true), $row->status, $row->hours, $row->cost,
                (int) $row->version];
        }
        ksort($looks);

        return $looks;
    }

    /**
     * @param  list<int>  $rules
     * @param  list<int>  $customers
     * @return array<string, int> how often each rule has fired, by rule and name of the record
     */
    private function fired(array $rules, array $customers): array
    {
        $fired = [];
        foreach (['customer' => 'id', 'ticket' => 'customer'] as $type => $of) {
            $name = $type === 'customer' ? 'name' : 'subject';
            $rows = DB::table('entries as e')->join("records_{$type} as r", 'r.id', '=', 'e.record_id')->where('e.record_type', $type)
                ->where('e.kind', 'fired')->whereIn('e.rule_id', $rules)->whereIn("r.{$of}",
                    $customers)->get(['e.rule_id', "r.{$name} as name"]);
            foreach ($rows as $row) {
                $key = array_search((int) $row->rule_id, $rules, true).' '.preg_replace('/^\w+ \d+ /', '', $row->name);
                $fired[$key] = ($fired[$key] ?? 0) + 1;
            }
        }
        ksort($fired);

        return $fired;
    }
}
