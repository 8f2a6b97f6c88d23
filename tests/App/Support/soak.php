<?php

declare(strict_types=1);

/*
 * One of several processes at the same company, each with a part of its own: some save customers, tickets and quotes, others decide,
 * reverse, alter what rules name, leave and come back. Each act is a request, as a browser makes it. Prints how many were taken, and
 * every answer that is neither taken nor a refusal with a reason.   php soak.php SEED ACTS PROCESS
 */

use Illuminate\Contracts\Http\Kernel;
use Tests\App\Support\Household;

require dirname(__DIR__, 3).'/vendor/autoload.php';
$app = require dirname(__DIR__, 3).'/bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
set_exception_handler(static function (Throwable $wrong): void {
    fwrite(STDERR, $wrong::class.": {$wrong->getMessage()}");
    exit(1);
});

[, $seed, $acts, $process] = array_map(intval(...), $argv);
$household = new Household($app, $app->make(Kernel::class), 1000 * $seed + $process);
for ($nth = 0; $nth < $acts; $nth++) {
    $household->act($process, $nth);
}
echo json_encode($household->answers, JSON_THROW_ON_ERROR);
