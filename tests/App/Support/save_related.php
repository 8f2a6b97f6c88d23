<?php

declare(strict_types=1);

/*
 * One of several processes that save customers and their tickets at the same time. Each prints what it saved, with the entry that the
 * save has in the ledger.   php save_related.php SEED SAVES BEGIN PROCESS
 */

use App\Store\LedgerConnection;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Console\Kernel;
use Tests\App\Support\Families;

require dirname(__DIR__, 3).'/vendor/autoload.php';
$app = require dirname(__DIR__, 3).'/bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
// What goes wrong here has to be seen by the test, and not be rendered and forgotten.
set_exception_handler(static function (Throwable $wrong): void {
    fwrite(STDERR, $wrong::class.": {$wrong->getMessage()}");
    exit(1);
});

[, $seed, $saves, $begin, $process] = array_map(intval(...), $argv);
$families = new Families(1000 * $seed + $process + 1);
$types = $app->make(SchemaStore::class)->schema()->types;
$save = $app->make(SaveRecord::class);
// All have found their feet by then.
usleep(max(0, $begin - (int) (1000 * microtime(true))) * 1000);
for ($nth = 0; $nth < $saves; $nth++) {
    $one = $families->save((string) $process, $nth);
    $entry = Families::saved($one, "race {$seed}", $types, $save, $app->make(LedgerConnection::class));
    if ($entry !== null) {
        echo json_encode(['entry' => $entry] + $one, JSON_THROW_ON_ERROR), "\n";
    }
}
