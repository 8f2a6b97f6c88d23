<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Columns;
use App\Store\Company;
use App\Store\Refused;
use Illuminate\Database\Connection;

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
            throw new Refused('not_allowed', 'The clock of this house cannot be turned.', 403);
        }
        $now = $this->clock->now();
        if ($to <= $now) {
            throw self::outOfRange('The clock only turns forward. To turn it back, start afresh: bin/start --fresh.');
        }
        if ($to > $now->modify('+'.self::MOST_DAYS.' days')) {
            throw self::outOfRange('Turn it by at most '.self::MOST_DAYS.' days at a time.');
        }

        return $this->db->transaction(function () use ($to, $now, $by): int {
            $this->db->select('SELECT id FROM company WHERE id = 1 FOR UPDATE');
            if ($this->db->table('clock_turns')->where('status', 'turning')->exists()) {
                throw new Refused('wrong_state', 'The clock is being turned already.', 409);
            }

            return (int) $this->db->table('clock_turns')->insertGetId([
                'from_at' => Columns::moment($now), 'to_at' => Columns::moment($to), 'reached_at' => Columns::moment($now), 'by_id' => $by,
                'first_entry' => (int) $this->db->scalar('SELECT COALESCE(MAX(id), 0) FROM entries'),
            ]);
        });
    }

    /** The next moment at which a pencilled line falls due; null when nothing is pencilled in. */
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
        $target = new \DateTimeImmutable("{$turn->to_at}Z");
        $at = new \DateTimeImmutable("{$turn->reached_at}Z");
        $steps = 0;
        $this->agenda->forget();
        try {
            do {
                [$at, $done] = $this->step($at, $target);
                $steps++;
                $over = $at >= $target;
                $this->db->update('UPDATE clock_turns SET reached_at = ?, done = done + ?, status = ?, leased_until = ? WHERE id = ?', [
                    Columns::moment($at), $done, $over ? 'turned' : 'turning', $over ? null : gmdate('Y-m-d H:i:s', time() + self::LEASE_SECONDS), $turn->id,
                ]);
            } while (! $over && microtime(true) < $end);
        } finally {
            $this->clock->hold(null);
            $this->db->update("UPDATE clock_turns SET leased_until = NULL WHERE id = ? AND status = 'turning'", [$turn->id]);
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
        $at = min(array_filter([$target, $this->nextLine($at), ...array_values($sweeps)]));
        $this->company->setClock($at);
        $this->clock->hold($at);
        $due = array_keys(array_filter($sweeps, static fn (\DateTimeImmutable $next): bool => $next <= $at));
        $done = 0;
        do {
            $now = $this->sweep->work($due) + $this->lines->work((int) config('ledger.batch'));
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
        $due = $this->db->scalar("SELECT MIN(due_at) FROM scheduled_lines WHERE status = 'pencilled' AND due_at > ?", [Columns::moment($at)]);

        return $due === null ? null : new \DateTimeImmutable("{$due}Z");
    }

    private function claim(): ?object
    {
        return $this->db->transaction(function (): ?object {
            $turn = $this->db->selectOne("SELECT * FROM clock_turns WHERE status = 'turning' AND (leased_until IS NULL OR leased_until < ?) LIMIT 1 FOR UPDATE SKIP LOCKED", [gmdate('Y-m-d H:i:s')]);
            if ($turn !== null) {
                $this->db->update('UPDATE clock_turns SET leased_until = ? WHERE id = ?', [gmdate('Y-m-d H:i:s', time() + self::LEASE_SECONDS), $turn->id]);
            }

            return $turn;
        });
    }

    private static function outOfRange(string $message): Refused
    {
        return new Refused('invalid_values', $message, 422, [['at' => '/to', 'code' => 'out_of_range', 'message' => $message]]);
    }
}
