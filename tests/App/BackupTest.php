<?php

declare(strict_types=1);

namespace Tests\App;

use App\Store\Seal\Sealer;
use App\Work\Backup\Restore;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\App\Support\AppTestCase;
use Tests\App\Support\OwnDatabase;

/** A company is written down while it is at work, and comes back as it was; nothing that is not whole is taken for it. */
final class BackupTest extends AppTestCase
{
    use OwnDatabase;

    private string $file = '';

    protected function isRolledBack(): bool
    {
        return false;
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->enterOwnDatabase();
        $this->file = sys_get_temp_dir().'/vivid-ledger-backup-'.getmypid().'-'.bin2hex(random_bytes(4)).'.sql.gz';
        Artisan::call('company:create', [
            'name' => 'Fern & Töchter 🌿', 'person' => 'Ines Okafor', 'email' => 'ines@fern.example', '--set' => ['sales', 'service'],
        ]);
        $this->as('ines.okafor', 'POST', 'types', ['label' => 'Boat', 'plural' => 'Boats'])->assertCreated();
        $values = ['name' => 'مرحبا “\'; DROP TABLE x; -- 🚤', 'notes' => str_repeat('ß', 4000)];
        $boat = $this->as('ines.okafor', 'POST', 'records/boat', ['values' => $values])->assertCreated()->json('record.id');
        $this->post("/api/records/boat/{$boat}/files", [
            'file' => UploadedFile::fake()->createWithContent('raw.bin', random_bytes(30_000)),
        ])->assertCreated();
        $this->app->make(Sealer::class)->seal((int) DB::table('entries')->max('id'));
    }

    protected function tearDown(): void
    {
        $this->leaveOwnDatabase();
        @unlink($this->file);
        parent::tearDown();
    }

    public function test_all_of_it_comes_back_and_goes_on(): void
    {
        $before = $this->all();
        self::assertSame(0, Artisan::call('ledger:backup', ['file' => $this->file]), Artisan::output());
        self::assertSame(1, Artisan::call('ledger:backup', ['file' => $this->file]), 'what is there is not written over');
        self::assertFileDoesNotExist("{$this->file}.part");
        $boat = DB::table('records_boat')->value('id');
        $this->as('ines.okafor', 'DELETE', "records/boat/{$boat}?version=1")->assertOk();
        self::assertSame(1, Artisan::call('ledger:restore', ['file' => $this->file]), 'a company is there');
        self::assertStringContainsString('--over', Artisan::output());
        $code = Artisan::call('ledger:restore', ['file' => $this->file, '--over' => true]);
        self::assertSame(0, $code, Artisan::output());
        $this->forgetEverything();
        self::assertSame($before, $this->all());
        $next = $this->as('ines.okafor', 'POST', 'records/boat', ['values' => ['name' => 'Next']])->assertCreated()->json('record.id');
        self::assertSame($boat + 1, $next, 'numbers go on where they were');
        self::assertSame(0, Artisan::call('ledger:verify'));
    }

    public function test_what_is_not_whole_is_not_taken(): void
    {
        Artisan::call('ledger:backup', ['file' => $this->file]);
        $whole = (string) file_get_contents($this->file);
        $text = (string) gzdecode($whole);
        $before = $this->all();
        foreach ([
            'cut off' => substr($whole, 0, intdiv(strlen($whole), 2)), 'its end is missing' => gzencode(substr($text, 0, -40)),
            'something else' => gzencode('SELECT 1;'), 'no file of that sort' => 'Hello', 'nothing' => '',
            'of a later version' => gzencode((string) preg_replace('/2026_11_23_000001_foundation/', '2031_01_01_000001_future', $text, 1)),
        ] as $how => $bytes) {
            file_put_contents($this->file, $bytes);
            self::assertSame(1, Artisan::call('ledger:restore', ['file' => $this->file, '--over' => true]), $how);
            self::assertSame($before, $this->all(), "{$how}: nothing was touched");
        }
        self::assertSame(1, Artisan::call('ledger:restore', ['file' => '/no/such/file', '--over' => true]));
        // Whole, but not what it was: somebody has been at it.
        file_put_contents($this->file, gzencode((string) preg_replace('/company_opened/', 'company_closed', $text, 1)));
        $this->expectExceptionMessage('not as it was when it was sealed');
        $this->app->make(Restore::class)->read($this->file, true);
    }

    public function test_metrics_are_read_by_whoever_has_the_secret(): void
    {
        $this->get('/metrics')->assertNotFound();
        config(['ledger.metrics_token' => 'a secret']);
        $this->get('/metrics')->assertNotFound();
        $this->get('/metrics', ['Authorization' => 'Bearer another'])->assertNotFound();
        $answer = $this->get('/metrics', ['Authorization' => 'Bearer a secret'])->assertOk();
        $lines = explode("\n", trim((string) $answer->getContent()));
        $values = [];
        foreach ($lines as $line) {
            self::assertMatchesRegularExpression(
                '/^(# (HELP|TYPE) vivid_ledger_\w+ .+|vivid_ledger_\w+(\{\w+="[^"]*"(,\w+="[^"]*")*\})? [\d.]+)$/',
                $line,
            );
            if ($line[0] !== '#') {
                [$name, $value] = explode(' ', $line);
                $values[$name] = (int) $value;
            }
        }
        $last = (int) DB::table('entries')->max('id');
        self::assertSame([$last, $last, 0], [
            $values['vivid_ledger_entries'], $values['vivid_ledger_entries_sealed'], $values['vivid_ledger_lines_due'],
        ]);
        self::assertArrayHasKey('vivid_ledger_queue_jobs{queue="letters"}', $values);
    }

    /** @return array<string, string> what every table holds, but for what is no loss */
    private function all(): array
    {
        $all = [];
        foreach (DB::select('SHOW FULL TABLES') as $table) {
            [$name, $kind] = array_values((array) $table);
            if ($kind === 'BASE TABLE' && ! in_array($name, ['sessions', 'cache', 'cache_locks', 'heartbeats', 'migrations'], true)) {
                $all[$name] = md5(serialize(array_map(static fn (object $row): array => (array) $row, DB::table($name)->get()->all())));
            }
        }

        return $all;
    }
}
