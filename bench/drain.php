<?php

declare(strict_types=1);

use App\Store\HouseClock;
use App\Work\Timing\LineWorker;
use Illuminate\Contracts\Console\Kernel;

// One worker, until nothing is due at a moment.   php bench/drain.php "2026-12-01 09:00:00"
require __DIR__.'/../vendor/autoload.php';
$app = require __DIR__.'/../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
$app->make(HouseClock::class)->hold(new DateTimeImmutable((string) ($argv[1] ?? 'now')));
$worker = $app->make(LineWorker::class);
for ($idle = 0; $idle < 3;) {
    $worker->work((int) config('ledger.batch')) === 0 ? $idle++ : $idle = 0;
}
