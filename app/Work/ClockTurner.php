<?php

declare(strict_types=1);

namespace App\Work;

use App\Models\ClockTurn;
use App\Models\CompanySettings;
use App\Models\Entry;
use App\Models\ScheduledLine;
use App\Models\TurnStatus;
use App\Store\Company;
use App\Store\HouseClock;
use App\Store\Refused;
use App\Store\RefusedFor;
use App\Store\Sql\Lock;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Words\Words;

/**
 * Turns the house clock forward: from one moment at which something can happen to the next, so that everything in between
 * really happens, in order, at its own time. A worker that dies in the middle leaves the turn to the next one.
 */
final readonly class ClockTurner
{
    private const LEASE_SECONDS = 60;

    private const MOST_DAYS = 800;

    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private Company $company,
        private LineWorker $lines,
        private Sweep $sweep,
        private Agenda $agenda,
        private SignOffsDue $signOffs,
        private SlipsDue $slips,
    ) {
    }

    /**
     * @return int id of the turn
     *
     * @throws Refused when the clock may not be turned there
     */
    public function begin(\DateTimeImmutable $to, int $by): int
    {
        if (config('ledger.clock_may_turn') !== true) {
            throw new Refused('not_allowed', Words::say('The clock of this house cannot be turned.'), RefusedFor::NotAllowed);
        }
        $now = $this->clock->now();
        if ($to <= $now) {
            throw self::outOfRange(Words::say('The clock only turns forward. To turn it back, start afresh: bin/start --fresh.'));
        }
        if ($to > $now->modify('+'.self::MOST_DAYS.' days')) {
            throw self::outOfRange(Words::say('Turn it by at most {days} days at a time.', days: self::MOST_DAYS));
        }

        return $this->db->transaction(function () use ($to, $now, $by): int {
            CompanySettings::query()->lockForUpdate()->find(CompanySettings::ID);
            if (ClockTurn::query()->where('status', TurnStatus::Turning)->exists()) {
                throw new Refused('wrong_state', Words::say('The clock is being turned already.'), RefusedFor::Conflict);
            }

            return ClockTurn::query()->create([
                'from_at' => $now, 'to_at' => $to, 'reached_at' => $now, 'by_id' => $by, 'first_entry' => (int) Entry::query()->max('id'),
            ])->id;
        });
    }

    /** The next moment at which a pencilled line falls due or a sign-off has to be tended; null when nothing is to come. */
    public function nextDue(): ?\DateTimeImmutable
    {
        return $this->nextLine($this->clock->now());
    }

    /** @return int how many steps were taken of a turn, for about so long; 0 when the clock is not being turned */
    public function work(float $seconds): int
    {
        $turn = $this->claim();
        if ($turn === null) {
            return 0;
        }
        $end = microtime(true) + $seconds;
        $target = $turn->to_at;
        $at = $turn->reached_at;
        $steps = 0;
        $this->agenda->forget();
        try {
            do {
                [$at, $done] = $this->step($at, $target);
                $steps++;
                $over = $at >= $target;
                $turn->update([
                    'reached_at' => $at, 'done' => $turn->done + $done, 'status' => $over ? TurnStatus::Turned : TurnStatus::Turning,
                    'leased_until' => $over ? null : self::leaseEnd(),
                ]);
            } while (! $over && microtime(true) < $end);
        } finally {
            $this->clock->hold(null);
            ClockTurn::query()->whereKey($turn->id)->where('status', TurnStatus::Turning)->update(['leased_until' => null]);
        }

        return $steps;
    }

    /**
     * Goes to the next moment at which something can happen, or as far as wanted when nothing does before, and lets it happen.
     *
     * @return array{\DateTimeImmutable, int} where the clock stands then, and how many lines and starts came into ink
     */
    public function step(\DateTimeImmutable $at, \DateTimeImmutable $target): array
    {
        $sweeps = $this->agenda->after($at);
        $at = min([$target, ...array_values(array_filter([$this->nextLine($at), ...$sweeps]))]);
        $this->company->setClock($at);
        $this->clock->hold($at);
        $due = array_keys(array_filter($sweeps, static fn (\DateTimeImmutable $next): bool => $next <= $at));
        $done = 0;
        do {
            $now = $this->sweep->work($due) + $this->signOffs->work() + $this->slips->work()
                + $this->lines->work((int) config('ledger.batch'));
            $done += $now;
            if ($now > 0) {
                // What happened may bring about more at this very moment.
                $this->agenda->forget();
                $due = array_keys(array_filter(
                    $this->agenda->after($at->modify('-1 second')),
                    static fn (\DateTimeImmutable $next): bool => $next <= $at,
                ));
            }
        } while ($now > 0);

        return [$at, $done];
    }

    private function nextLine(\DateTimeImmutable $at): ?\DateTimeImmutable
    {
        $moments = array_filter([ScheduledLine::nextDue($at), SignOffsDue::next($at), SlipsDue::next($at)]);

        return $moments === [] ? null : min($moments);
    }

    private function claim(): ?ClockTurn
    {
        return $this->db->transaction(static function (): ?ClockTurn {
            $turn = ClockTurn::query()->where('status', TurnStatus::Turning)->where(static fn (Builder $free): Builder => $free
                ->whereNull('leased_until')->orWhere('leased_until', '<', gmdate('Y-m-d H:i:s')))->lock(Lock::SKIP)->first();
            $turn?->update(['leased_until' => self::leaseEnd()]);

            return $turn;
        });
    }

    private static function leaseEnd(): \DateTimeImmutable
    {
        return new \DateTimeImmutable('@'.(time() + self::LEASE_SECONDS));
    }

    private static function outOfRange(string $message): Refused
    {
        return new Refused(
            'invalid_values',
            $message,
            RefusedFor::Invalid,
            [['at' => '/to', 'code' => 'out_of_range', 'message' => $message]],
        );
    }
}
