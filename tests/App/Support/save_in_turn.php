<?php

declare(strict_types=1);

/*
 * One of several processes that save the same ticket at the same time. Each save takes the version it finds and tries
 * again when another was faster, as a person would.   php save_in_turn.php TICKET SAVES
 */

use App\Store\Actor;
use App\Store\DomainError;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Facades\DB;

require __DIR__.'/../../../vendor/autoload.php';
$app = require __DIR__.'/../../../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
// What goes wrong here has to be seen by the test, and not be rendered and forgotten.
set_exception_handler(static function (Throwable $wrong): void {
    fwrite(STDERR, $wrong::class.": {$wrong->getMessage()}");
    exit(1);
});

[, $ticket, $saves] = array_map(intval(...), $argv);
$type = $app->make(SchemaStore::class)->schema()->types['ticket'];
for ($done = 0; $done < $saves;) {
    try {
        $version = (int) DB::scalar('SELECT version FROM records_ticket WHERE id = ?', [$ticket]);
        $saved = $app->make(SaveRecord::class)->change($type, $ticket, $version, ['notes' => getmypid().' '.$done], new Actor(1));
        $done += $saved->entryId === null ? 0 : 1;
    } catch (DomainError $refused) {
        if ($refused->reason !== 'stale_version') {
            throw $refused;
        }
    }
}
