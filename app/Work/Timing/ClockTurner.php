<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Ledger\Entry;
use App\Models\Setup\CompanySettings;
use App\Models\Slips\TurnStatus;
use App\Models\Timing\ClockTurn;
use App\Models\Timing\ScheduledLine;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\LedgerConnection;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Sql\Lease;
use App\Work\Outbound\CallDispatcher;
use App\Work\Outbound\NoticeLetters;
use App\Work\Outbound\OutboxRelay;
use App\Work\SignOffs\SignOffsDue;
use App\Work\Slips\SlipsDue;
use VividLedger\Words\Words;

/**
 * Turns the house clock forward: from one moment at which something can happen to the next, so that everything in between
 * really happens, in order, at its own time: lines, sweeps, letters and calls. Meanwhile the clock stands for everybody where the turn has
 * come to, and nobody else does what falls due. A worker that dies in the middle leaves the turn to the next one.
 */
final readonly class ClockTurner
{
    private const LEASE_SECONDS = 300;

    private const LETTERS = 100;

    private const CALLS = 100;

    /** So long calls of one moment may take, until the clock goes on without those that are left. */
    private const CALLS_SECONDS = 10.0;

    private const MOST_DAYS = 800;

    public function __construct(
        private LedgerConnection $db,
        private HouseClock $clock,
        private Company $company,
        private LineWorker $lines,
        private Sweep $sweep,
        private Agenda $agenda,
        private SignOffsDue $signOffs,
        private SlipsDue $slips,
        private NoticeLetters $notices,
        private OutboxRelay $postman,
        private CallDispatcher $caller,
    ) {
    }

    /**
     * @return int id of the turn
     *
     * @throws DomainError when the clock may not be turned there
     */
    public function begin(\DateTimeImmutable $to, int $by): int
    {
        if (config('ledger.clock_may_turn') !== true) {
            throw new DomainError('not_allowed', Words::say('The clock of this house cannot be turned.'), RefusedFor::NotAllowed);
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
                throw new DomainError('wrong_state', Words::say('The clock is being turned already.'), RefusedFor::Conflict);
            }
            $this->company->holdClock($now);

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
                while ($this->sent() > 0) {
                    // What came back may have brought something about.
                    $done += $this->settle($at, $this->dueAt($at));
                }
                $steps++;
                $over = $at >= $target;
                $this->db->transaction(function () use ($turn, $at, $done, $over): void {
                    $turn->update([
                        'reached_at' => $at, 'done' => $turn->done + $done, 'status' => $over ? TurnStatus::Turned : TurnStatus::Turning,
                        'leased_until' => $over ? null : Lease::until(self::LEASE_SECONDS),
                    ]);
                    if ($over) {
                        $this->company->setClock($at);
                    }
                });
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
        $this->company->holdClock($at);
        $this->clock->hold($at);

        return [$at, $this->settle($at, array_keys(array_filter($sweeps, static fn (\DateTimeImmutable $next): bool => $next <= $at)))];
    }

    /**
     * All that is due at a moment happens, and what that brings about at the same moment.
     *
     * @param  list<int>  $due  rules that sweep now
     * @return int how many lines and starts came into ink
     */
    private function settle(\DateTimeImmutable $at, array $due): int
    {
        $done = 0;
        do {
            $now = $this->sweep->work($due) + $this->signOffs->work() + $this->slips->work()
                + $this->lines->work((int) config('ledger.batch'));
            $done += $now;
            if ($now > 0) {
                // What happened may bring about more at this very moment.
                $this->agenda->forget();
                $due = $this->dueAt($at);
            }
        } while ($now > 0);
        $this->notices->work();

        return $done;
    }

    /** @return list<int> rules that sweep at a moment */
    private function dueAt(\DateTimeImmutable $at): array
    {
        return array_keys(array_filter(
            $this->agenda->after($at->modify('-1 second')),
            static fn (\DateTimeImmutable $next): bool => $next <= $at,
        ));
    }

    /** @return int how many calls have left, with all letters, at the moment at which the clock stands */
    private function sent(): int
    {
        while ($this->postman->work(self::LETTERS) === self::LETTERS) {
            continue;
        }

        return $this->caller->work(self::CALLS, self::CALLS_SECONDS);
    }

    private function nextLine(\DateTimeImmutable $at): ?\DateTimeImmutable
    {
        $moments = array_filter([
            ScheduledLine::nextDue($at), SignOffsDue::next($at), SlipsDue::next($at), $this->notices->nextMorning($at),
        ]);

        return $moments === [] ? null : min($moments);
    }

    private function claim(): ?ClockTurn
    {
        return Lease::take($this->db, ClockTurn::query()->where('status', TurnStatus::Turning), seconds: self::LEASE_SECONDS);
    }

    private static function outOfRange(string $message): DomainError
    {
        return new DomainError(
            'invalid_values',
            $message,
            RefusedFor::Invalid,
            [['at' => '/to', 'code' => 'out_of_range', 'message' => $message]],
        );
    }
}
