<?php

declare(strict_types=1);

namespace App\Work;

use App\Store\Actor;
use App\Store\Batch;
use App\Store\Columns;
use App\Store\LedgerConnection;
use App\Store\Outcome;
use App\Store\RememberedRuleBook;
use App\Store\SaveRecord;
use App\Store\SchemaStore;
use App\Store\StoredFacts;
use App\Store\StoredRuleBook;
use App\Store\TypeTable;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\FixedClock;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\ComesRound;
use VividLedger\Rule\Trigger\Swept;

/**
 * Looks for what time sets off: from where the last sweep of a rule ended to now. What it finds is found without a lock; how far
 * it came commits with what it started, and the occasion of each start is a guard key, so nothing is missed or started twice.
 */
final readonly class Sweep
{
    private const CHUNK = 500;

    public function __construct(
        private LedgerConnection $db,
        private SchemaStore $schemas,
        private StoredRuleBook $rules,
        private Engine $engine,
        private SaveRecord $save,
        private HouseClock $clock,
        private Agenda $agenda,
        private Rounds $rounds,
    ) {
    }

    /**
     * @param  ?list<int>  $only  rules that may find something; the others have come as far without looking
     * @return int how many records rules were started on
     */
    public function work(?array $only = null): int
    {
        $started = 0;
        $now = $this->clock->now();
        $swept = [];
        foreach ($this->db->select("SELECT s.rule_id FROM sweeps s JOIN rules r ON r.id = s.rule_id WHERE r.status = 'in_force' AND s.swept_until < ? ORDER BY s.rule_id", [Columns::moment($now)]) as $row) {
            if ($only !== null && ! in_array((int) $row->rule_id, $only, true)) {
                $swept[] = (int) $row->rule_id;

                continue;
            }
            try {
                do {
                    [$count, $more] = $this->chunk((int) $row->rule_id, $now);
                    $started += $count;
                } while ($more);
            } catch (\Throwable $trouble) {
                if ($this->db->isGone($trouble)) {
                    throw $trouble;
                }
                // Trouble with one rule is told, and the others are swept all the same.
                report($trouble);
            }
        }
        if ($swept !== []) {
            $this->db->update(
                'UPDATE sweeps SET swept_until = ? WHERE sweeping_to IS NULL AND swept_until < ? AND rule_id IN ('.implode(', ', $swept).')',
                [Columns::moment($now), Columns::moment($now)],
            );
        }

        return $started;
    }

    /** @return array{int, bool} how many records were started on, and whether there may be more */
    private function chunk(int $ruleId, \DateTimeImmutable $now): array
    {
        $sweep = $this->db->selectOne(
            "SELECT s.*, r.page, r.either_or FROM sweeps s JOIN rules r ON r.id = s.rule_id WHERE s.rule_id = ? AND r.status = 'in_force'",
            [$ruleId],
        );
        $after = $sweep === null ? $now : new \DateTimeImmutable("{$sweep->swept_until}Z");
        $until = ($sweep->sweeping_to ?? null) === null ? $now : new \DateTimeImmutable("{$sweep->sweeping_to}Z");
        if ($sweep === null || $until <= $after) {
            return [0, false];
        }
        $rule = $this->rules->page($ruleId, (int) $sweep->page, $sweep->either_or);
        $found = $rule === null ? [] : ($this->agenda->finderFor($rule)?->between($rule, $after, $until, (int) $sweep->at_id, self::CHUNK) ?? []);

        try {
            return $this->started($sweep, $rule, $found, $after, $until, false);
        } catch (\Throwable $trouble) {
            if ($found === [] || $this->db->isGone($trouble)) {
                throw $trouble;
            }
            report($trouble);

            return $this->started($sweep, $rule, $found, $after, $until, true);
        }
    }

    /**
     * @param  object  $sweep  as it was read before the search
     * @param  array<int, array{int, string}>  $found
     * @param  bool  $alone  whether each record is started on by itself, because one of them spoilt it for all
     * @return array{int, bool}
     */
    private function started(
        object $sweep,
        ?Rule $rule,
        array $found,
        \DateTimeImmutable $after,
        \DateTimeImmutable $until,
        bool $alone,
    ): array {
        return $this->db->transaction(function () use ($sweep, $rule, $found, $after, $until, $alone): array {
            $now = $this->db->selectOne(
                'SELECT swept_until, sweeping_to, at_id FROM sweeps WHERE rule_id = ? FOR UPDATE SKIP LOCKED',
                [$sweep->rule_id],
            );
            $page = $this->db->scalar("SELECT page FROM rules WHERE id = ? AND status = 'in_force' LOCK IN SHARE MODE", [$sweep->rule_id]);
            if ($now === null || $page === null || (int) $page !== (int) $sweep->page || [$now->swept_until, $now->sweeping_to, (int) $now->at_id] !== [$sweep->swept_until, $sweep->sweeping_to, (int) $sweep->at_id]) {
                // Another worker has been at it, or the rule has changed.
                return [0, false];
            }
            if ($rule !== null && $rule->trigger instanceof ComesRound) {
                $this->rounds->come($rule, $rule->trigger, $after, $until);
            }
            $started = 0;
            if ($rule !== null && $rule->trigger instanceof Swept && $found !== []) {
                foreach ($alone ? array_map(static fn (array $one): array => [$one], array_values($found)) : [array_values($found)] as $together) {
                    $started += $alone ? $this->alone($rule, $rule->trigger, $together[0]) : $this->start($rule, $rule->trigger, $together);
                }
            }
            $more = count($found) >= self::CHUNK;
            $this->db->update('UPDATE sweeps SET swept_until = ?, sweeping_to = ?, at_id = ? WHERE rule_id = ?', $more
                ? [$sweep->swept_until, Columns::moment($until), max(array_keys($found)), $sweep->rule_id] : [Columns::moment($until), null, 0, $sweep->rule_id]);

            return [$started, $more];
        });
    }

    /** @param  array{int, string}  $found */
    private function alone(Rule $rule, Swept $trigger, array $found): int
    {
        try {
            return $this->db->transaction(fn (): int => $this->start($rule, $trigger, [$found]));
        } catch (\Throwable $broken) {
            if ($this->db->isGone($broken) || $this->db->isLostToAnother($broken)) {
                throw $broken;
            }
            report($broken);
            SetAside::start($this->db, $rule, $found[0], $found[1], $this->clock->now(), $broken);

            return 0;
        }
    }

    /** @param  list<array{int, string}>  $found  record and occasion */
    private function start(Rule $rule, Swept $trigger, array $found): int
    {
        $now = $this->clock->now();
        $type = $this->schemas->schema()->types[$rule->on];
        $occasions = array_column($found, 1, 0);
        $ids = array_keys($occasions);
        $settlement = $this->save->settlement($now, static fn (StoredFacts $facts) => $facts->rememberGuards($rule->id, $type->name, $ids));
        $book = new RememberedRuleBook($this->rules, $rule);
        $started = 0;
        $refused = [];
        foreach ($this->db->select('SELECT * FROM `'.TypeTable::name($type->name).'` WHERE id IN ('.implode(', ', $ids).') ORDER BY id FOR UPDATE') as $row) {
            $record = Columns::record($type, $row);
            $change = Change::event($record, new Event($trigger::event(), $occasions[$record->id], $trigger->wanted(), $rule->id), null, $now, CauseKind::Rule);
            $decision = $settlement->decided($type->name, fn (StoredFacts $facts): Decision => $this->engine->decide($change, $book, $facts, new FixedClock($now)));
            if ($decision->refusal !== null) {
                // The sweep goes on behind it, so nobody tries this start again.
                $refused[] = $this->save->refused(
                    $type,
                    $record->id,
                    new Actor(null, CauseKind::Rule),
                    $decision->refusal,
                    ['of' => $rule->name, 'again' => false],
                );
            } elseif ($decision->steps !== []) {
                $started++;
                $settlement->add(
                    [$record, $decision->after],
                    new Outcome($change, $decision, new Actor(null, CauseKind::Rule), $trigger::event()->value),
                );
            }
        }
        $settlement->flush();
        if ($refused !== []) {
            Batch::insert($this->db, 'entries', $refused);
        }

        return $started;
    }
}
