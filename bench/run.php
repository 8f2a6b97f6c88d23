<?php

declare(strict_types=1);

use App\Demo\Demo;
use Bench\CrowdBench;
use Bench\DecideBench;
use Bench\DeskBench;
use Bench\DrainBench;
use Bench\EvidenceBench;
use Bench\Figures;
use Bench\HouseBench;
use Bench\ImportBench;
use Bench\LetterBench;
use Bench\ListBench;
use Bench\PhraseBench;
use Bench\RightsBench;
use Bench\RuleBench;
use Bench\SaveBench;
use Bench\ScreenBench;
use Bench\SignOffBench;
use Bench\TimeBench;
use Bench\TurnBench;
use Bench\WatchBench;
use Illuminate\Contracts\Console\Kernel;

// php bench/run.php FILE [PART ...]   where FILE is written with the figures
require __DIR__.'/../vendor/autoload.php';
$app = require __DIR__.'/../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();

$parts = [
    'phrases' => PhraseBench::run(...),
    'decide' => DecideBench::run(...),
    'turn' => TurnBench::run(...),
    'save' => SaveBench::run(...),
    'save-ten' => RuleBench::tenRules(...),
    'calendar' => TimeBench::arithmetic(...),
    'sweep' => TimeBench::sweep(...),
    'claim' => TimeBench::claim(...),
    'drain' => DrainBench::run(...),
    'list' => ListBench::run(...),
    'desk' => DeskBench::run(...),
    'crowd' => CrowdBench::run(...),
    'watch' => WatchBench::run(...),
    'screens' => ScreenBench::run(...),
    'rights' => RightsBench::run(...),
    'bulk' => RuleBench::bulk(...),
    'import' => ImportBench::run(...),
    'sign-offs' => SignOffBench::run(...),
    'seals' => HouseBench::seals(...),
    'field' => HouseBench::field(...),
    'letters' => LetterBench::out(...),
    'slips' => LetterBench::slips(...),
    'mail' => LetterBench::in(...),
    'rehearse' => EvidenceBench::rehearsal(...),
    'remarks' => EvidenceBench::remarks(...),
    'look-back' => EvidenceBench::lookBack(...),
];
$wanted = array_slice($argv, 2) ?: array_keys($parts);
$unknown = array_diff($wanted, array_keys($parts));
if ($unknown !== []) {
    fwrite(STDERR, '  There is no part '.implode(', ', $unknown).'. The parts are '.implode(', ', array_keys($parts)).".\n");
    exit(2);
}
foreach (array_unique($wanted) as $part) {
    $app->forgetScopedInstances();
    // Each on a company of its own, so that no part finds what another has left.
    $app->make(Kernel::class)->call('migrate:fresh', ['--force' => true]);
    $app->make(Demo::class)->loadBase();
    Figures::begin($part);
    $parts[$part]();
    Figures::write($argv[1]);
}
