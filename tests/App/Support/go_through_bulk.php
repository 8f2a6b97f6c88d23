<?php

declare(strict_types=1);

// A worker that goes through work on many records until there is no more, or until it is killed.

use App\Evidence\Lists\BulkWorker;
use Illuminate\Contracts\Console\Kernel;

require dirname(__DIR__, 3).'/vendor/autoload.php';
$app = require dirname(__DIR__, 3).'/bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
config(['ledger.bulk_rest' => 20]);
while ($app->make(BulkWorker::class)->work(60.0) > 0) {
}
