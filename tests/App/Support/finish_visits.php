<?php

declare(strict_types=1);

// One of several processes that finish the visits of an agreement at the same time: every so-manieth is this one's.

use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Facades\DB;

require dirname(__DIR__, 3).'/vendor/autoload.php';
$app = require dirname(__DIR__, 3).'/bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
// What goes wrong here has to be seen by the test, and not be rendered and forgotten.
set_exception_handler(static function (Throwable $wrong): void {
    fwrite(STDERR, $wrong::class.": {$wrong->getMessage()}");
    exit(1);
});

[, $processes, $mine] = $argv;
$type = $app->make(SchemaStore::class)->schema()->types['visit'];
foreach (DB::select("SELECT id FROM records_visit WHERE status = 'planned' AND MOD(id, ?) = ? ORDER BY "
    .'id', [(int) $processes, (int) $mine]) as $visit) {
    $app->make(SaveRecord::class)->change($type, (int) $visit->id, 1, ['status' => 'done'], new Actor(null));
}
