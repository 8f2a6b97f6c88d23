<?php

declare(strict_types=1);

use App\Evidence\Lists\GoThroughBulk;
use App\Evidence\Rehearsal\PlayProofs;
use App\Models\Operations\WorkerProcess;
use App\Store\Ledger\Sealer;
use App\Work\Operations\Housekeeping;
use App\Work\Outbound\DeliverLetters;
use App\Work\Outbound\MakeCalls;
use App\Work\Timing\GoThroughRuns;
use Illuminate\Support\Facades\Schedule;

// What waits is called for when it comes; once a minute it is called for again, should a call have been lost.
Schedule::job(new DeliverLetters)->everyMinute();
Schedule::job(new MakeCalls)->everyMinute();
Schedule::job(new GoThroughRuns)->everyMinute();
Schedule::job(new GoThroughBulk)->everyMinute();
Schedule::job(new PlayProofs)->everyMinute();

Schedule::command('model:prune', ['--model' => [WorkerProcess::class]])->everyTenMinutes();
Schedule::command('sanctum:prune-expired', ['--hours' => 0])->hourly();
Schedule::command('queue:prune-failed', ['--hours' => 30 * 24])->daily();
Schedule::call(static function (Sealer $sealer): void {
    while ($sealer->work() > 0);
})->everyMinute();
Schedule::call(static fn (Housekeeping $housekeeping): int => $housekeeping->sweep())->everyMinute();
