<?php

declare(strict_types=1);

namespace App\Work\Timing;

use App\Models\Columns;
use App\Models\Ledger\Entry;
use App\Models\Records\StoredRecord;
use App\Models\Rules\StoredRule;
use App\Models\Timing\SweepMark;
use App\Store\Actor;
use App\Store\HouseClock;
use App\Store\Ledger\DecisionRecord;
use App\Store\LedgerConnection;
use App\Store\Records\SaveRecord;
use App\Store\Records\StoredFacts;
use App\Store\Rules\CachingRuleBook;
use App\Store\Rules\StartBook;
use App\Store\Rules\StoredRuleBook;
use App\Store\Sql\Batch;
use App\Store\Sql\FaultIsolation;
use App\Store\Sql\Lock;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Rule\Rule;
use VividLedger\Rule\RuleStatus;
use VividLedger\Rule\Trigger\KeepsTimetable;
use VividLedger\Rule\Trigger\Swept;
use VividLedger\Time\FixedClock;

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
        private RoundsDue $rounds,
        private FaultIsolation $isolation,
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
        $behind = SweepMark::query()->where('swept_until', '<', Columns::moment($now))->orderBy('rule_id')
            ->whereHas('rule', static fn (Builder $rules): Builder => $rules->where('status', RuleStatus::InForce));
        foreach ($behind->pluck('rule_id') as $rule) {
            if ($only !== null && ! in_array($rule, $only, true)) {
                $swept[] = $rule;

                continue;
            }
            // Trouble with one rule is told, and the others are swept all the same.
            $next = static fn (): int => 0;
            $started += $this->isolation->attempt(fn (): int => $this->sweep($rule, $now), $next, $next);
        }
        if ($swept !== []) {
            SweepMark::query()->whereNull('sweeping_to')->where('swept_until', '<', Columns::moment($now))->whereIn('rule_id', $swept)
                ->update(['swept_until' => Columns::moment($now)]);
        }

        return $started;
    }

    private function sweep(int $ruleId, \DateTimeImmutable $now): int
    {
        $started = 0;
        do {
            [$count, $more] = $this->chunk($ruleId, $now);
            $started += $count;
        } while ($more);

        return $started;
    }

    /** @return array{int, bool} how many records were started on, and whether there may be more */
    private function chunk(int $ruleId, \DateTimeImmutable $now): array
    {
        $sweep = SweepMark::query()->with('rule')->find($ruleId);
        $until = $sweep->sweeping_to ?? $now;
        if ($sweep === null || $sweep->rule->status !== RuleStatus::InForce || $until <= $sweep->swept_until) {
            return [0, false];
        }
        $after = $sweep->swept_until;
        $rule = $this->rules->page($ruleId, (int) $sweep->rule->page, $sweep->rule->either_or);
        $finder = $rule === null ? null : $this->agenda->finderFor($rule);
        $found = $rule === null ? [] : ($finder?->between($rule, $after, $until, $sweep->at_id, self::CHUNK) ?? []);

        return $this->isolation->attempt(
            fn (): array => $this->started($sweep, $rule, $found, $after, $until, false),
            fn (\Throwable $broken): array => $found === []
                ? throw $broken
                : $this->started($sweep, $rule, $found, $after, $until, true),
        );
    }

    /**
     * @param  SweepMark  $sweep  as it was read before the search
     * @param  array<int, array{int, string}>  $found
     * @param  bool  $alone  whether each record is started on by itself, because one of them spoilt it for all
     * @return array{int, bool}
     */
    private function started(
        SweepMark $sweep,
        ?Rule $rule,
        array $found,
        \DateTimeImmutable $after,
        \DateTimeImmutable $until,
        bool $alone,
    ): array {
        return $this->db->transaction(function () use ($sweep, $rule, $found, $after, $until, $alone): array {
            $now = SweepMark::query()->lock(Lock::SKIP)->find($sweep->rule_id);
            $page = StoredRule::query()->inForce()->sharedLock()->whereKey($sweep->rule_id)->value('page');
            if ($now === null || $page === null || $page !== $sweep->rule->page || ! $now->isWhereItWas($sweep)) {
                // Another worker has been at it, or the rule has changed.
                return [0, false];
            }
            if ($rule !== null && $rule->trigger instanceof KeepsTimetable) {
                $this->rounds->come($rule, $rule->trigger, $after, $until);
            }
            $started = 0;
            if ($rule !== null && $rule->trigger instanceof Swept && $found !== []) {
                $started = $alone
                    ? array_sum(array_map(fn (array $one): int => $this->alone($rule, $rule->trigger, $one), $found))
                    : $this->start($rule, $rule->trigger, array_values($found));
            }
            $more = count($found) >= self::CHUNK;
            $now->update($more
                ? ['sweeping_to' => $until, 'at_id' => max(array_keys($found))]
                : ['swept_until' => $until, 'sweeping_to' => null, 'at_id' => 0]);

            return [$started, $more];
        });
    }

    /** @param  array{int, string}  $found */
    private function alone(Rule $rule, Swept $trigger, array $found): int
    {
        return $this->isolation->attempt(
            fn (): int => $this->db->transaction(fn (): int => $this->start($rule, $trigger, [$found])),
            function (\Throwable $broken) use ($rule, $found): int {
                DeadLetters::start($rule, $found[0], $found[1], $this->clock->now(), $broken);

                return 0;
            },
        );
    }

    /** @param  list<array{int, string}>  $found  record and occasion */
    private function start(Rule $rule, Swept $trigger, array $found): int
    {
        $now = $this->clock->now();
        $type = $this->schemas->schema()->types[$rule->on];
        $occasions = array_column($found, 1, 0);
        $ids = array_keys($occasions);
        $rows = StoredRecord::rowsOf($type)->whereIn('id', $ids)->orderBy('id')->lockForUpdate()->get();
        // Once nobody else can change the records: what is fetched about them for all is then as it is.
        $settlement = $this->save->settlement($now, static function (StoredFacts $facts) use ($rule, $type, $ids): void {
            $facts->rememberGuards($rule->id, $type->name, $ids);
            $facts->rememberLocks($type->name, $ids);
        });
        $book = new StartBook(new CachingRuleBook($this->rules), $rule);
        $started = 0;
        $refused = [];
        foreach ($rows as $row) {
            $record = Columns::record($type, $row);
            $event = new Event($trigger::event(), $occasions[$record->id], $trigger->wanted(), $rule->id);
            $change = Change::event($record, $event, null, $now, CauseKind::Rule);
            $decision = $settlement->decided(
                $type->name,
                fn (StoredFacts $facts): Decision => $this->engine->decide($change, $book, $facts, new FixedClock($now)),
            );
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
                    new DecisionRecord($change, $decision, new Actor(null, CauseKind::Rule), $trigger::event()->value),
                );
            }
        }
        $settlement->flush();
        if ($refused !== []) {
            Batch::insert(Entry::class, $refused);
        }

        return $started;
    }
}
