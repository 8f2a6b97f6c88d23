<?php

declare(strict_types=1);

namespace Tests\App\Import;

use App\Evidence\Lists\BulkWorker;
use App\Models\Lists\BulkJob;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\Imports;

/** A file becomes records: sent in pieces, read, tried, brought in with or without rules, and taken back. */
final class ImportTest extends AppTestCase
{
    use Imports;

    protected function setUp(): void
    {
        parent::setUp();
        Queue::fake();
        $this->clockAt('2026-11-24T09:00:00Z');
        $this->inForce([
            'name' => 'Welcome', 'on' => 'customer', 'when' => ['kind' => 'created'], 'fires' => ['kind' => 'every_time'],
            'onlyIf' => ['kind' => 'all', 'of' => [['kind' => 'is', 'field' => 'plan', 'value' => 'full_care']]],
            'lines' => [['kind' => 'give_task', 'to' => ['kind' => 'owner'], 'title' => 'Welcome {number}']],
        ]);
    }

    public function test_a_file_is_read_tried_brought_in_and_taken_back(): void
    {
        $this->created('customer', ['name' => 'Quayside Clinic', 'plan' => 'basic', 'owner' => $this->person('jonas.pike')->id]);
        $rows = [
            ['Kundenname', 'Plan', 'Owner', 'Yearly value', 'Remark'],
            ['Müßig & Söhne', 'Full care', 'Jonas Pike', '1.234,50 €', 'x'],
            ['مرحبا 🌿', 'Basic', 'jonas.pike@larkmoss.example', '20,00', ''],
            ['Quayside Clinic', 'Full care', 'Jonas Pike', '5,00', ''],
            ['No such plan', 'Gold', 'Jonas Pike', '1,00', ''],
            ['Two things wrong', 'Basic', 'Nobody Here', 'much', ''],
            ['Müßig & Söhne', 'Basic', 'Jonas Pike', '1,00', 'again'],
        ];
        $text = implode("\r\n", array_map(static fn (array $row): string => implode(';', $row), $rows));
        $read = $this->uploaded('customer', (string) iconv('UTF-8', 'UTF-16LE', "\u{FEFF}{$text}"), 97);
        self::assertSame(['UTF-16LE', ';', 6], [$read['encoding'], $read['delimiter'], $read['job']['total']]);
        self::assertSame([null, 'plan', 'owner', 'yearly_value', null], array_column($read['columns'], 'field'));

        $id = $read['job']['id'];
        $mapping = ['0' => 'name', '1' => 'plan', '2' => 'owner', '3' => 'yearly_value'];
        $this->tried($id, ['1' => 'plan'], null, 'create')->assertStatus(422)->assertJsonPath('problems.0.at', '/mapping');
        $this->tried($id, $mapping, 'number', 'both')->assertStatus(422)->assertJsonPath('problems.0.at', '/key');
        $this->as('ines.okafor', 'POST', "imports/{$id}/start", ['answered' => true])->assertStatus(409);
        $this->tried($id, $mapping, 'name', 'both')->assertOk()->assertJsonPath('job.status', 'trying');
        $this->work();
        $tried = $this->as('ines.okafor', 'GET', "imports/{$id}")->assertOk()->json();
        self::assertSame(['tried', 2, 1, 3], [$tried['job']['status'], $tried['create'], $tried['update'], $tried['job']['refused']]);
        self::assertSame([
            [5, 'plan'], [6, 'owner'], [6, 'yearly_value'], [7, 'name'],
        ], array_map(static fn (array $one): array => [$one['row'], $one['field']], $tried['problems']));
        self::assertSame('Row 2 is about the same customer.', $tried['problems'][3]['said']);
        self::assertSame([['Welcome', 1]], array_map(static fn (array $rule): array => [$rule['name'], $rule['count']], $tried['rules']));
        self::assertSame([1, 0], [DB::table('records_customer')->count(), DB::table('tasks')->count()], 'nothing is saved yet');

        $this->as('ines.okafor', 'POST', "imports/{$id}/start", ['answered' => true])->assertOk();
        $this->work();
        $done = $this->as('ines.okafor', 'GET', "imports/{$id}")->assertOk()->json('job');
        self::assertSame(['done', 3, 3], [$done['status'], $done['saved'], $done['refused']]);
        self::assertSame([
            ['Quayside Clinic', 'full_care', '5.00'], ['Müßig & Söhne', 'full_care', '1234.50'], ['مرحبا 🌿', 'basic', '20.00'],
        ], DB::table('records_customer')->orderBy('id')->get(['name', 'plan', 'yearly_value'])
            ->map(static fn (object $row): array => array_values((array) $row))->all());
        $number = sprintf('C-%04d', DB::table('records_customer')->where('name', 'Müßig & Söhne')->value('id'));
        self::assertSame(["Welcome {$number}"], DB::table('tasks')->pluck('title')->all());
        self::assertSame(['import'], DB::table('entries')->where('kind', 'created')->where('via', '<>', 'person')->distinct()
            ->pluck('via')->all());

        $report = explode("\r\n", trim((string) $this->as('ines.okafor', 'GET', "imports/{$id}/report")->assertOk()->streamedContent()));
        self::assertSame("\u{FEFF}Row;Why;Kundenname;Plan;Owner;Yearly value;Remark", $report[0]);
        self::assertStringStartsWith('5;"Plan: there is no ‘Gold’; there are', $report[1]);
        self::assertStringContainsString('No such plan;Gold;Jonas Pike', $report[1]);
        self::assertCount(4, $report);

        $this->as('ines.okafor', 'POST', "bulk/{$id}/undo")->assertOk();
        $this->work();
        self::assertSame([['Quayside Clinic', 'basic', null]], DB::table('records_customer')->get(['name', 'plan', 'yearly_value'])
            ->map(static fn (object $row): array => array_values((array) $row))->all());
        self::assertSame(['cancelled'], DB::table('tasks')->pluck('status')->all());
    }

    public function test_what_a_cell_means_is_said_once_for_all_rows_and_remembered(): void
    {
        $rows = static fn (string $more): string => "name,plan,owner\n".implode("\n", [
            'One,Gold,Jonas Pike', 'Two,gold ,J. Pike', 'Three,Basic,J. Pike', 'Four,Gold,Jonas Pike', $more,
        ])."\n";
        $id = $this->uploaded('customer', $rows('Five,Silver,Jonas Pike'), 1000)['job']['id'];
        $mapping = ['0' => 'name', '1' => 'plan', '2' => 'owner'];
        $this->tried($id, $mapping, null, 'create')->assertOk();
        $this->work();
        $groups = $this->as('ines.okafor', 'GET', "imports/{$id}")->assertOk()->json('groups');
        self::assertSame([
            ['plan', 'Gold', 3, [2, 3, 5]], ['owner', 'J. Pike', 2, [3, 4]], ['plan', 'Silver', 1, [6]],
        ], array_map(static fn (array $one): array => [$one['field'], $one['cell'], $one['count'], $one['rows']], $groups));
        $values = [
            ['field' => 'plan', 'from' => 'Gold', 'to' => 'Full care'], ['field' => 'owner', 'from' => 'J. Pike', 'to' => 'Jonas Pike'],
            ['field' => 'plan', 'from' => 'Silver', 'to' => ''],
        ];
        $this->as('ines.okafor', 'POST', "imports/{$id}/try", ['mapping' => $mapping, 'key' => null, 'mode' => 'create',
            'values' => $values])->assertOk();
        $this->work();
        $tried = $this->as('ines.okafor', 'GET', "imports/{$id}")->assertOk()->json();
        self::assertSame([5, 0, []], [$tried['create'], $tried['job']['refused'], $tried['groups']]);
        $this->as('ines.okafor', 'POST', "imports/{$id}/start", ['answered' => false])->assertOk();
        $this->work();
        self::assertSame(
            ['full_care', 'full_care', 'basic', 'full_care', null], DB::table('records_customer')->orderBy('id')->pluck('plan')->all(),
        );
        self::assertSame([$this->person('jonas.pike')->id], DB::table('records_customer')->distinct()->pluck('owner')->all());
        // The next file of the same columns is read alike.
        $next = $this->uploaded('customer', $rows('Five,Silver,Jonas Pike'), 1000);
        self::assertSame(['gold', 'Full care'], [$next['values'][0]['from'], $next['values'][0]['to']]);
    }

    public function test_without_rules_none_starts_and_a_record_that_somebody_used_since_stays(): void
    {
        $id = $this->begun("name,plan,owner\nOne,full_care,Jonas Pike\nTwo,full_care,Jonas Pike\n", false);
        $this->work();
        self::assertSame([2, 0], [DB::table('records_customer')->count(), DB::table('tasks')->count()]);
        $one = (int) DB::table('records_customer')->where('name', 'One')->value('id');
        $this->as('bram.castellan', 'PATCH', "records/customer/{$one}", ['version' => 1, 'values' => ['plan' => 'basic']])->assertOk();
        $this->as('ines.okafor', 'POST', "bulk/{$id}/undo")->assertOk();
        $this->work();
        self::assertSame(['One'], DB::table('records_customer')->pluck('name')->all());
        $job = $this->as('ines.okafor', 'GET', "bulk/{$id}")->assertOk()->json();
        self::assertSame(['undone', 1, 'Somebody has had to do with it since.'],
            [$job['status'], $job['undone'], $job['problems'][0]['said']]);
    }

    /** Wherever a worker dies, the next one goes on there: no row is lost and none comes twice. */
    public function test_it_goes_on_where_a_worker_died(): void
    {
        $lines = array_map(static fn (int $n): string => "Customer {$n},basic,Jonas Pike", range(1, 450));
        $id = $this->begun("name,plan,owner\n".implode("\n", $lines)."\n", true);
        $deaths = 0;
        for ($round = 0; $round < 40 && BulkJob::query()->findOrFail($id)->status->value !== 'done'; $round++) {
            $this->dieAfter($round % 2 === 0 ? 9 + $round : 100_000);
            try {
                $this->app->make(BulkWorker::class)->work(0.0);
            } catch (\RuntimeException) {
                $deaths++;
            } finally {
                DB::getEventDispatcher()->forget(QueryExecuted::class);
            }
            BulkJob::query()->update(['leased_until' => null]);
        }
        self::assertGreaterThan(1, $deaths);
        self::assertSame(450, DB::table('records_customer')->distinct()->count('name'));
        self::assertSame([450, 450, 450], [
            DB::table('records_customer')->count(), BulkJob::query()->findOrFail($id)->saved,
            DB::table('bulk_rows')->where('job_id', $id)->where('result', 'created')->count(),
        ]);
    }

    /** Whoever may make records and not change them stops and takes back what they brought in themselves. */
    public function test_whoever_only_makes_records_stops_and_takes_back_their_own_import(): void
    {
        $id = $this->begun("name,plan,owner\nOne,basic,Jonas Pike\nTwo,basic,Jonas Pike\n", false);
        $this->as('ines.okafor', 'POST', 'roles', ['file' => [
            'label' => 'Gatherer', 'duties' => [], 'fields' => [],
            'reaches' => ['*' => ['read' => 'all'], 'customer' => ['read' => 'all', 'create' => 'all']],
        ]])->assertCreated();
        BulkJob::query()->whereKey($id)->update(['by_id' => $this->person('odile.march')->id]);
        $odile = fn (string $act): TestResponse => $this->as('odile.march', 'POST', "bulk/{$id}/{$act}");
        $odile('stop')->assertForbidden();
        $this->as('ines.okafor', 'PATCH', "people/{$this->person('odile.march')->id}", ['role' => 'gatherer'])->assertOk();
        $odile('stop')->assertOk()->assertJsonPath('status', 'stopped');
        $odile('go-on')->assertOk();
        $this->work();
        self::assertSame(2, DB::table('records_customer')->count());
        $odile('undo')->assertOk();
        $this->work();
        self::assertSame(0, DB::table('records_customer')->count());
    }

    public function test_what_is_no_table_is_told_in_a_sentence_and_changes_nothing(): void
    {
        $begin = fn (int $bytes): TestResponse => $this->as('ines.okafor', 'POST', 'imports', [
            'recordType' => 'customer', 'name' => 'big.csv', 'bytes' => $bytes,
        ]);
        self::assertStringContainsString('60.0 MB', $begin(60_000_000)->assertStatus(422)->json('detail'));
        foreach ([
            "\x89PNG\r\n\x1A\n\0\0\0\rIHDR" => 'no table of text', "\n\n" => 'nothing in this file', "name,plan\n" => 'only one row',
            "name,plan\n\"never closed,".str_repeat('x', 1_100_000) => 'never closed',
        ] as $content => $said) {
            $id = $begin(10)->assertCreated()->json('job.id');
            foreach (str_split($content, 1_000_000) as $place => $piece) {
                $this->piece($id, $place, $piece)->assertNoContent();
            }
            self::assertStringContainsString($said, $this->as('ines.okafor', 'POST', "imports/{$id}/read")->assertStatus(422)
                ->json('detail'));
        }
        $this->piece($begin(10)->json('job.id'), 0, str_repeat('x', 1_000_001))->assertStatus(422);
        $this->as('odile.march', 'POST', 'imports', ['recordType' => 'customer', 'name' => 'x', 'bytes' => 1])->assertForbidden();
        self::assertSame(0, DB::table('records_customer')->count());
    }

    private function dieAfter(int $statements): void
    {
        $count = 0;
        DB::listen(static function () use (&$count, $statements): void {
            if (++$count === $statements) {
                throw new \RuntimeException('the power went');
            }
        });
    }

    /** What was left out is mended in a table program, and comes in as if it had been right at once. */
    public function test_what_was_left_out_is_mended_and_comes_in(): void
    {
        $file = "Kunde;Betreuung;Telefon;Wert\nAlder Court;basic;+49 30 5550 0101;1.200,50\n"
            ."\"Birch; Sons\";gold;+49 30 5550 0102;2.000,00\n"
            ."Cedar Hall;gold;-5550 0103;3,00\n";
        $columns = ['0' => 'name', '1' => 'plan', '2' => 'phone', '3' => 'yearly_value'];
        $id = $this->uploaded('customer', $file, 1_000_000)['job']['id'];
        $this->tried($id, $columns, null, 'create')->assertOk();
        $this->work();
        $this->as('ines.okafor', 'POST', "imports/{$id}/start", ['answered' => false])->assertOk();
        $this->work();
        $leftOut = ltrim((string) $this->as('ines.okafor', 'GET', "imports/{$id}/report")->streamedContent(), "\u{FEFF}");
        self::assertStringStartsWith('Row;Why;Kunde;Betreuung;Telefon;Wert', $leftOut);
        self::assertStringContainsString(';"Birch; Sons";gold;+49 30 5550 0102;2.000,00', $leftOut);

        $again = $this->uploaded('customer', str_replace('gold', 'care', $leftOut), 1_000_000);
        self::assertSame(['name', 'plan', 'phone', 'yearly_value'], array_values(array_filter(array_column($again['columns'], 'field'))));
        $chosen = array_filter(array_column($again['columns'], 'field'));
        $this->tried($again['job']['id'], $chosen, $again['key'], $again['mode'])->assertOk();
        $this->work();
        $this->as('ines.okafor', 'POST', "imports/{$again['job']['id']}/start", ['answered' => false])->assertOk();
        $this->work();
        self::assertSame([
            ['Alder Court', '+49 30 5550 0101', '1200.50'], ['Birch; Sons', '+49 30 5550 0102', '2000.00'],
            ['Cedar Hall', '-5550 0103', '3.00'],
        ], DB::table('records_customer')->whereIn('name', ['Alder Court', 'Birch; Sons', 'Cedar Hall'])->orderBy('name')
            ->get(['name', 'phone', 'yearly_value'])->map(static fn (object $row): array => array_values((array) $row))->all());
    }

    public function test_files_are_written_in_the_language_of_whoever_takes_them(): void
    {
        $this->as('ines.okafor', 'PUT', 'language', ['language' => 'de'])->assertSuccessful();
        $file = (string) $this->as('ines.okafor', 'GET', 'ledger/file')->streamedContent();
        self::assertStringStartsWith("\u{FEFF}Nummer,", $file);
    }
}
