<?php

declare(strict_types=1);

namespace App\Console;

use App\Evidence\Proofs;
use App\Store\RunStore;
use App\Work\ClockTurner;
use App\Work\Lane;
use App\Work\LineWorker;
use App\Work\Postman;
use App\Work\Sweep;
use Illuminate\Contracts\Container\Container;

/** Does the work of a lane. */
final readonly class Lanes
{
    private const LETTERS = 20;

    private const PROOFS = 20;

    public function __construct(private Container $app)
    {
    }

    /** @return int how much was done; 0 when there was nothing to do */
    public function work(Lane $lane): int
    {
        return match ($lane) {
            Lane::Lines => $this->app->make(LineWorker::class)->work((int) config('ledger.batch')),
            Lane::Sweep => $this->app->make(Sweep::class)->work(),
            Lane::Turn => $this->app->make(ClockTurner::class)->work(1.0),
            Lane::Letters => $this->app->make(Postman::class)->work(self::LETTERS),
            Lane::Proofs => $this->app->make(Proofs::class)->work(self::PROOFS),
            Lane::Runs => $this->app->make(RunStore::class)->work(1.0),
        };
    }
}
