<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Store\Lists\FoundTexts;
use App\Store\Setup\Company;
use App\Work\Inbound\MailFetcher;
use App\Work\Outbound\NoticeLetters;
use App\Work\SignOffs\SignOffsDue;
use App\Work\Slips\SlipsDue;
use App\Work\Timing\ClockTurner;
use App\Work\Timing\LineWorker;
use App\Work\Timing\Sweep;
use Illuminate\Contracts\Container\Container;

/** Does the work of a lane. */
final readonly class Lanes
{
    /** What falls due by the house clock. */
    private const BY_THE_CLOCK = [Lane::Lines, Lane::Sweep, Lane::Notices];

    public function __construct(private Container $app, private ConfigurationWatch $watch)
    {
    }

    /** @return int how much was done; 0 when there was nothing to do */
    public function work(Lane $lane): int
    {
        $this->watch->look();
        if (in_array($lane, self::BY_THE_CLOCK, true) && $this->app->make(Company::class)->isClockHeld()) {
            // Whoever turns the clock does it, in order.
            return 0;
        }

        return match ($lane) {
            Lane::Lines => $this->app->make(SignOffsDue::class)->work() + $this->app->make(SlipsDue::class)->work()
                + $this->app->make(LineWorker::class)->work((int) config('ledger.batch'), $this->watch),
            Lane::Sweep => $this->app->make(Sweep::class)->work() + $this->app->make(FoundTexts::class)->takeUpWords(),
            Lane::Turn => $this->app->make(ClockTurner::class)->work(1.0),
            Lane::Notices => $this->app->make(NoticeLetters::class)->work(),
            Lane::Fetch => $this->app->make(MailFetcher::class)->work(),
        };
    }
}
