<?php

declare(strict_types=1);

use App\Demo\Demo;
use Bench\DecideBench;
use Bench\EvidenceBench;
use Bench\ListBench;
use Bench\RuleBench;
use Bench\SaveBench;
use Bench\TimeBench;
use Bench\TurnBench;
use Illuminate\Contracts\Console\Kernel;

require __DIR__.'/../vendor/autoload.php';
$app = require __DIR__.'/../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
$app->make(Kernel::class)->call('migrate:fresh', ['--force' => true]);
$app->make(Demo::class)->loadBase();

DecideBench::run();
TurnBench::run();
SaveBench::run();
TimeBench::run();
ListBench::run();
RuleBench::run();
EvidenceBench::run();
