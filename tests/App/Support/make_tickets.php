<?php

declare(strict_types=1);

// One of several processes that each make a ticket of every customer, one customer after the other.   php make_tickets.php IDS PROCESS

use App\Store\Actor;
use App\Store\Records\SaveRecord;
use App\Store\Types\SchemaStore;
use Illuminate\Contracts\Console\Kernel;

require dirname(__DIR__, 3).'/vendor/autoload.php';
$app = require dirname(__DIR__, 3).'/bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
// What goes wrong here has to be seen by the test, and not be rendered and forgotten.
set_exception_handler(static function (Throwable $wrong): void {
    fwrite(STDERR, $wrong::class.": {$wrong->getMessage()}");
    exit(1);
});

[, $customers, $process] = $argv;
$type = $app->make(SchemaStore::class)->schema()->types['ticket'];
foreach (explode(',', $customers) as $customer) {
    $app->make(SaveRecord::class)->create($type, [
        'subject' => "Of process {$process}", 'customer' => (int) $customer, 'priority' => 'normal', 'status' => 'open',
    ], new Actor(1));
}
