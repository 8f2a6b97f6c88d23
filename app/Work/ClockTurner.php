<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Columns;
use App\Store\Company;
use App\Store\Refused;
use App\Store\RunStore;
use Illuminate\Database\Connection;

/**
 * Turns the house clock forward: from one moment at which something falls due to the next, so that everything in between
 * really happens, in order, at its own time. A worker that dies in the middle leaves the turn to the next one.
 */
final readonly class ClockTurner
{
    /** What sweeps find lies on such steps; times of day hardly ever lie between them. */
    private const STEP_SECONDS = 900;

    private const LEASE_SECONDS = 60;

    private const MOST_DAYS = 800;

    public function __construct(
        private Connection $db,
        private HouseClock $clock,
        private Company $company,
        private LineWorker $lines,
        private Sweep $sweep,
        private RunStore $runs,
        private Postman $postman,
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
            throw new Refused('invalid_values', 'The clock only turns forward. To turn it back, start afresh: bin/start --fresh.', 422, [['at' => '/to', 'code' => 'out_of_range', 'message' => 'The clock only turns forward.']]);
        }
        if ($to > $now->modify('+'.self::MOST_DAYS.' days')) {
            throw new Refused('invalid_values', 'Turn it by at most '.self::MOST_DAYS.' days at a time.', 422, [['at' => '/to', 'code' => 'out_of_range', 'message' => 'Turn it by at most '.self::MOST_DAYS.' days at a time.']]);
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
        $due = $this->db->scalar("SELECT MIN(due_at) FROM scheduled_lines WHERE status = 'pencilled' AND due_at > ?", [Columns::moment($this->clock->now())]);

        return $due === null ? null : new \DateTimeImmutable("{$due}Z");
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
        try {
            do {
                $at = min($target, $this->next($at));
                $this->company->setClock($at);
                $this->clock->hold($at);
                $done = $this->happen();
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

    /** @return int how many lines and starts came into ink */
    private function happen(): int
    {
        $done = 0;
        do {
            $now = $this->sweep->work() + $this->lines->work((int) config('ledger.batch')) + $this->runs->work(1.0);
            $done += $now;
            $this->postman->work(20);
        } while ($now > 0);

        return $done;
    }

    private function next(\DateTimeImmutable $at): \DateTimeImmutable
    {
        $due = $this->db->scalar("SELECT MIN(due_at) FROM scheduled_lines WHERE status = 'pencilled' AND due_at > ?", [Columns::moment($at)]);
        $step = new \DateTimeImmutable('@'.((intdiv($at->getTimestamp(), self::STEP_SECONDS) + 1) * self::STEP_SECONDS));
        $swept = (bool) $this->db->scalar("SELECT EXISTS (SELECT 1 FROM sweeps s JOIN rules r ON r.id = s.rule_id WHERE r.status = 'in_force')");
        $next = array_filter([$swept ? $step : null, $due === null ? null : new \DateTimeImmutable("{$due}Z")]);

        return $next === [] ? new \DateTimeImmutable('9999-12-31T00:00:00Z') : min($next);
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
}
