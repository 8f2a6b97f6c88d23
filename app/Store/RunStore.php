<?php

declare(strict_types=1);

namespace App\Store;

use App\Work\HouseClock;
use VividLedger\Engine\Firing;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Schema\RecordType;

/**
 * Rules run by hand. One record is answered at once; a selection is a run that workers go through, each record in a
 * transaction of its own, so that a run cut short goes on where it was.
 */
final readonly class RunStore
{
    public const MOST = 10_000;

    private const LEASE_SECONDS = 60;

    private const LONGEST_TROUBLE = 300;

    public function __construct(
        private LedgerConnection $db,
        private SchemaStore $schemas,
        private SaveRecord $save,
        private HouseClock $clock,
    ) {
    }

    /**
     * @param  list<int>  $ids  of the records
     * @return int id of the run
     */
    public function start(int $rule, RecordType $type, array $ids, int $by): int
    {
        $ids = array_values(array_unique($ids));
        if ($ids === [] || count($ids) > self::MOST) {
            throw new Refused('invalid_values', $ids === [] ? 'Choose at least one record.' : 'A run takes at most '.number_format(self::MOST).' records at a time.', 422);
        }
        $known = $this->db->selectOne("SELECT r.id FROM rules r JOIN rule_watches w ON w.rule_id = r.id AND w.watch = '!by_hand' WHERE r.id = ? AND r.record_type = ? AND r.status = 'in_force'", [$rule, $type->name]);
        if ($known === null) {
            throw new Refused('not_runnable', "This rule is not in force, or not one that is run by hand on {$type->plural}.", 409);
        }

        return $this->db->transaction(function () use ($rule, $type, $ids, $by): int {
            [$run] = Batch::insertForIds($this->db, 'runs', [['rule_id' => $rule, 'record_type' => $type->name, 'by_id' => $by, 'at' => Columns::moment($this->clock->now()), 'total' => count($ids)]]);
            Batch::insert($this->db, 'run_records', array_map(static fn (int $id): array => ['run_id' => $run, 'record_id' => $id], $ids));

            return $run;
        });
    }

    /**
     * Goes through waiting runs, for about so long.
     *
     * @return int how many records were answered; 0 means that nothing waits
     */
    public function work(float $seconds): int
    {
        $now = gmdate('Y-m-d H:i:s');
        $until = gmdate('Y-m-d H:i:s', time() + self::LEASE_SECONDS);
        $run = $this->db->transaction(function () use ($now, $until): ?object {
            $run = $this->db->selectOne("SELECT * FROM runs WHERE status IN ('waiting', 'running') AND (leased_until IS NULL OR leased_until < ?) ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED", [$now]);
            if ($run !== null) {
                $this->db->update("UPDATE runs SET status = 'running', leased_until = ? WHERE id = ?", [$until, $run->id]);
            }

            return $run;
        });
        if ($run === null) {
            return 0;
        }

        return $this->through($run, microtime(true) + $seconds);
    }

    /** Goes through one run to its end; for a single record, where the person waits for the answer. */
    public function finish(int $run): void
    {
        $row = $this->db->selectOne('SELECT * FROM runs WHERE id = ?', [$run]);
        if ($row !== null) {
            $this->through($row, microtime(true) + self::LEASE_SECONDS);
        }
    }

    private function through(object $run, float $end): int
    {
        $answered = 0;
        do {
            $waiting = $this->db->select("SELECT record_id FROM run_records WHERE run_id = ? AND result = 'waiting' ORDER BY record_id LIMIT 50", [$run->id]);
            foreach ($waiting as $row) {
                $this->answered($run, (int) $row->record_id);
                $answered++;
                if (microtime(true) > $end) {
                    break 2;
                }
            }
        } while ($waiting !== []);
        $this->db->update("UPDATE runs SET leased_until = NULL, status = IF(done >= total, 'done', 'running') WHERE id = ?", [$run->id]);

        return $answered;
    }

    /** One record that cannot be answered is told as failed, and keeps the others from nothing. */
    private function answered(object $run, int $id): void
    {
        try {
            $this->answer($run, $id);
        } catch (\Throwable $broken) {
            if ($this->db->isGone($broken)) {
                throw $broken;
            }
            report($broken);
            $this->db->transaction(function () use ($run, $id, $broken): void {
                $said = 'It could not be done: '.mb_strimwidth($broken->getMessage(), 0, self::LONGEST_TROUBLE, '…');
                if ($this->db->update("UPDATE run_records SET result = 'failed', said = ? WHERE run_id = ? AND record_id = ? AND result = 'waiting'", [$said, $run->id, $id]) > 0) {
                    $this->db->update('UPDATE runs SET done = done + 1 WHERE id = ?', [$run->id]);
                }
            });
        }
    }

    private function answer(object $run, int $id): void
    {
        $type = $this->schemas->schema()->types[$run->record_type];
        $this->db->transaction(function () use ($run, $id, $type): void {
            // Whoever holds the row answers the record; another worker that took over waits here and finds it done.
            $waiting = $this->db->selectOne("SELECT 1 FROM run_records WHERE run_id = ? AND record_id = ? AND result = 'waiting' FOR UPDATE", [$run->id, $id]);
            if ($waiting === null) {
                return;
            }
            [$result, $said, $entry] = $this->result($run, $type, $id);
            $this->db->update('UPDATE run_records SET result = ?, said = ?, entry_id = ? WHERE run_id = ? AND record_id = ?', [$result, mb_substr($said, 0, 500), $entry, $run->id, $id]);
            $this->db->update('UPDATE runs SET done = done + 1, fired = fired + ? WHERE id = ?', [$result === 'fired' ? 1 : 0, $run->id]);
        });
    }

    /** @return array{string, string, ?int} what came of it, in a word and in a sentence, and the entry */
    private function result(object $run, RecordType $type, int $id): array
    {
        $event = static fn (): Event => new Event(EventKind::ByHand, "hand:{$run->id}", '', (int) $run->rule_id);
        try {
            $saved = $this->save->happen($type, $id, $event, new Actor((int) $run->by_id), ['run' => (int) $run->id], null, null, (int) $run->rule_id);
        } catch (Refused $refused) {
            return ['refused', $refused->getMessage(), null];
        }
        foreach ($saved->decision->steps as $place => $step) {
            if ($step instanceof Firing && $step->rule->id === (int) $run->rule_id) {
                return ['fired', '', $saved->stepEntries[$place]];
            }
        }

        return ['silent', 'The rule did not fire.', $saved->entryId];
    }
}
