<?php

declare(strict_types=1);

namespace Tests\App\Operations;

use App\Store\DomainError;
use App\Store\Ledger\Sealer;
use App\Work\Operations\Restore;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Process\Process;
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
        [$before, $ties] = [$this->all(), $this->ties()];
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
        self::assertSame($ties, $this->ties());
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
            'an error in the midst of it' => gzencode((string) preg_replace('/INSERT INTO `files`/', 'INSRT INTO `files`', $text, 1)),
            'less than it says' => gzencode((string) preg_replace('/"entries":\d+/', '"entries":999999', $text, 1)),
            'of a later version' => gzencode((string) preg_replace('/2026_11_23_000001_foundation/', '2031_01_01_000001_future', $text, 1)),
        ] as $how => $bytes) {
            file_put_contents($this->file, $bytes);
            self::assertSame(1, Artisan::call('ledger:restore', ['file' => $this->file, '--over' => true]), $how);
            self::assertSame($before, $this->all(), "{$how}: nothing was touched");
        }
        self::assertSame(1, Artisan::call('ledger:restore', ['file' => '/no/such/file', '--over' => true]));
        // Whole, but not what it was: somebody has been at it.
        file_put_contents($this->file, gzencode((string) preg_replace('/company_opened/', 'company_closed', $text, 1)));
        try {
            $this->app->make(Restore::class)->read($this->file, true);
            self::fail('It was not sealed so.');
        } catch (DomainError $refused) {
            self::assertStringContainsString('not as it was when it was sealed', $refused->getMessage());
        }
        self::assertSame($before, $this->all(), 'what is there stays until all is well');
        // Wherever a byte has turned on the disk, it is seen, and soon.
        foreach (range(1, 25) as $nth) {
            $turned = $whole;
            $at = intdiv(strlen($whole) * $nth, 26);
            $turned[$at] = chr(ord($turned[$at]) ^ (1 << ($nth % 8)));
            file_put_contents($this->file, $turned);
            self::assertSame(1, Artisan::call('ledger:restore', ['file' => $this->file, '--over' => true]), "byte {$at}");
        }
        self::assertSame($before, $this->all());
        self::assertSame([$this->own], array_column(DB::select("SHOW DATABASES LIKE '{$this->own}%'"), "Database ({$this->own}%)"));
    }

    public function test_where_there_is_no_room_it_says_so(): void
    {
        // As on a disk that is full: nothing over so many kilobytes can be written.
        $backup = new Process(['bash', '-c', 'trap "" XFSZ; ulimit -f 24; exec "$@"', 'bash', PHP_BINARY, 'artisan', 'ledger:backup',
            $this->file],
            base_path(), ['DB_DATABASE' => $this->own]);
        self::assertSame(1, $backup->run(), $backup->getOutput());
        self::assertStringContainsString('cannot be written', $backup->getOutput().$backup->getErrorOutput());
        self::assertFileDoesNotExist($this->file);
        self::assertFileDoesNotExist("{$this->file}.part");
        self::assertSame(1, Artisan::call('ledger:backup', ['file' => '/no/such/folder/file']));
    }

    /** What the mail room shows holds links that let somebody act; whoever gets at a backup does not get those. */
    public function test_no_letter_of_the_stand_in_is_part_of_it(): void
    {
        DB::table('mail_room')->insert([
            'kind' => 'email', 'message_id' => 'x@y', 'at' => '2026-11-24 09:00:00', 'sender' => 'a@b.example', 'recipients' => '[]',
            'subject' => 'x', 'text' => 'LIVELINK',
            'raw' => 'LIVELINK',
        ]);
        Artisan::call('ledger:backup', ['file' => $this->file]);
        self::assertStringNotContainsString('LIVELINK', (string) gzdecode((string) file_get_contents($this->file)));
        self::assertStringNotContainsString(bin2hex('LIVELINK'), strtolower((string) gzdecode((string) file_get_contents($this->file))));
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

    /** @return list<string> what refers to what */
    private function ties(): array
    {
        return array_map(static fn (object $row): string => json_encode($row) ?: '', DB::select(
            'SELECT constraint_name, unique_constraint_schema, table_name, referenced_table_name '
            .'FROM information_schema.referential_constraints WHERE constraint_schema = DATABASE() ORDER BY table_name, constraint_name',
        ));
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
