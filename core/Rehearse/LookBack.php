<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Facts\Facts;
use VividLedger\Facts\GuardState;
use VividLedger\Facts\Quiet;
use VividLedger\Facts\View;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\Record;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Ahead;
use VividLedger\Rule\Trigger\Swept;
use VividLedger\Rule\Trigger\WaitsForSilence;
use VividLedger\Rule\Trigger\Watch;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/**
 * Replays a rule over what happened to one record after another. Each change is judged as it was recorded: what the rule's own
 * lines would have changed is not laid over the past. Guards belong to a record, so records can be replayed one by one, and
 * memory holds one of them.
 */
final class LookBack
{
    /** How many firings were held back by the repeat guard. */
    public int $heldBack = 0;

    /** The type whose changes are replayed: the rule's own, or that of the related records it watches. */
    public readonly RecordType $type;

    /**
     * @var list<array{int, string, int, string, int}> entry, moment, record, occasion and chain of what a related record's changes would
     *     have started, before the guards
     */
    private array $started = [];

    /** The chain in which the record at hand was last answered. */
    private int $lastChain = -1;

    /** What the silence of the record at hand is counted from. */
    private ?PastChange $quietSince = null;

    /** @var array<string, true> keys of the index under which the rule looks at changes */
    private readonly array $keys;

    /** @var array<string, string|int|bool|null> the values of a record of which nothing is known */
    private readonly array $nothing;

    private readonly bool $readsOthers;

    private readonly bool $isPlain;

    /** What does not change with time, with the clock turned back. */
    private readonly Paper $then;

    /** @param  array<int, true>  $earlier  ids of the rules that stand before it: it is judged on the record as they left it */
    public function __construct(
        private readonly Rule $rule,
        private readonly Schema $schema,
        private readonly \DateTimeZone $zone,
        private readonly Past $past,
        private readonly Facts $present,
        private readonly string $from,
        private readonly string $until,
        private readonly array $earlier = [],
    ) {
        $this->type = $schema->types[$rule->own ? $rule->on : $rule->trigger->watch()->type];
        $this->nothing = $this->nothing();
        $this->keys = array_fill_keys($rule->watch()->keys(), true);
        $this->then = new Paper($present, $schema, new \DateTimeImmutable($from));
        $this->isPlain = $rule->again === null && \VividLedger\Condition\Tree::isPlain($rule->condition);
        $this->readsOthers = \VividLedger\Condition\Tree::readsOthers($rule->condition);
    }

    /**
     * @param  list<PastChange>  $changes  of one record, in order
     * @return list<PastFire> those of this record; for a rule that watches related records none before all are known
     */
    public function of(int $id, array $changes): array
    {
        $values = [];
        $version = 0;
        $record = null;
        $fires = [];
        $guard = ['state' => new GuardState, 'keys' => []];
        [$this->quietSince, $this->lastChain] = [null, -1];
        foreach ($changes as $index => $change) {
            $before = $record;
            if ($change->kind === 'deleted') {
                $record = null;
            } elseif ($change->set !== [] || $record === null) {
                // A record whose beginning is not recorded begins with what is known of it.
                $values = $record->values ?? $this->nothing + ['created_at' => $change->at, 'created_by' => $change->actor];
                foreach ($change->set as $field => $value) {
                    $values[$field] = $value;
                }
                $values['updated_at'] = $change->at;
                $values['updated_by'] = $change->actor;
                $record = new Record($this->type->name, $id, ++$version, $values);
            }
            // Its own change is no news to a rule.
            if ($change->isAsked() && $change->rule !== $this->rule->id && ($record ?? $before) !== null) {
                $this->rule->own ? $this->judge(
                    $change,
                    $before,
                    $record,
                    $this->leftByOthers($record, $index, $changes),
                    $guard,
                    $fires,
                ) : $this->judgeRelated($change, $before, $record);
            }
            if ($this->rule->trigger instanceof WaitsForSilence) {
                $this->listen($this->rule->trigger->quiet(), $change);
            }
            if ($record !== null && $this->rule->trigger instanceof Swept) {
                $this->swept($record, $change, $changes[$index + 1] ?? null, $guard, $fires);
            }
        }

        return $fires;
    }

    /**
     * @param  array{state: GuardState, keys: array<string, true>}  $guard
     * @param  list<PastFire>  $fires
     */
    private function judge(PastChange $past, ?Record $before, ?Record $after, ?Record $seen, array &$guard, array &$fires): void
    {
        $record = $seen ?? $before;
        if ($record === null || $past->at < $this->from || $past->at > $this->until || ! $this->mayLook($past, $before, $after)) {
            return;
        }
        // What the record alone decides needs neither the change nor the clock.
        if ($this->isPlain && (! $this->rule->holds(new View($record, $this->then)) || (! $this->rule->trigger instanceof Swept
            && $this->rule->guard->wantsTurn() && $past->event === null && $before !== null
            && $this->rule->holds(new View($before, $this->then))))) {
            return;
        }
        $moment = $past->moment();
        $change = $past->event !== null
            ? Change::event($record, new Event(
                $past->event,
                "entry:{$past->entry}",
                $past->text,
                from: $past->from,
            ), $past->actor, $moment, $past->via)
            : new Change($before, $after, $past->actor, $moment, $past->via);
        $facts = null;
        if ($this->rule->again !== null && $this->rule->isReadyAgain($change, $facts = $this->facts($past->entry, $moment))) {
            $guard = ['state' => new GuardState($guard['state']->epoch + 1), 'keys' => []];
        }
        $facts ??= $this->facts($past->entry, $moment);
        $view = new View($record, $facts, $change);
        if (! $this->rule->holds($view) || ! $this->rule->looksAt($change, $facts)) {
            return;
        }
        $occasion = $this->rule->trigger->occasionOf($change, $facts);
        if ($occasion === null ? $this->rule->guard->wantsTurn() && $past->event === null && $before !== null
            && $this->rule->holds(new View($before, $facts)) : isset($guard['keys'][$occasion])) {
            return;
        }
        if ($occasion !== null) {
            $guard['keys'][$occasion] = true;
        }
        // A rule fires at most once per record in one chain.
        if ($this->lastChain !== $past->chain
            && $this->fire($record, $past->entry, $past->at, $moment, $occasion ?? $change->occasion(), $guard, $fires)) {
            $this->lastChain = $past->chain;
        }
    }

    /**
     * The record as earlier rules left it when they answered the same change.
     *
     * @param  list<PastChange>  $changes
     */
    private function leftByOthers(?Record $record, int $index, array $changes): ?Record
    {
        $entry = $changes[$index]->entry;
        for ($next = $index + 1; $record !== null && isset($changes[$next]) && $changes[$next]->kind === 'fired'
            && $changes[$next]->chain === $changes[$index]->chain; $next++) {
            if ($changes[$next]->cause === $entry && isset($this->earlier[$changes[$next]->rule])) {
                $record = $record->with($changes[$next]->set);
            }
        }

        return $record;
    }

    /**
     * What a change of a related record would have started; the guards are asked once all of it is known, in the order in which it
     * happened.
     */
    private function judgeRelated(PastChange $past, ?Record $before, ?Record $after): void
    {
        $record = $after ?? $before;
        if ($record === null || $past->event !== null || $past->at < $this->from || $past->at > $this->until
            || ! $this->mayLook($past, $before, $after)) {
            return;
        }
        $moment = $past->moment();
        $change = new Change($before, $after, $past->actor, $moment, $past->via);
        $facts = $this->past->after($past->entry, $moment);
        if (! $this->rule->looksAt($change, $facts)) {
            return;
        }
        foreach ($this->rule->trigger->subjects($change, $facts) ?? [] as $subject) {
            if ($subject->type !== $this->rule->on || ! $this->rule->holds(new View($subject, $facts, $change))) {
                continue;
            }
            $was = $this->rule->guard->wantsTurn() ? $this->rule->before($change, $subject, $facts, $this->schema) : null;
            if ($was === null || ! $this->rule->holds($was)) {
                $this->started[] = [
                    $past->entry, $past->at, $subject->id, "{$record->type}:{$record->id}:{$change->occasion()}", $past->chain,
                ];
            }
        }
    }

    /**
     * For a rule that watches related records, once all of them have been replayed.
     *
     * @return array<int, list<PastFire>> by record
     */
    public function settle(): array
    {
        sort($this->started);
        $guards = [];
        $fires = [];
        $chains = [];
        foreach ($this->started as [$entry, $at, $id, $occasion, $chain]) {
            if (($chains[$id] ?? -1) === $chain) {
                continue;
            }
            $moment = new \DateTimeImmutable($at);
            $record = $this->past->after($entry, $moment)->record($this->rule->on, $id);
            if ($record !== null) {
                $guards[$id] ??= ['state' => new GuardState, 'keys' => []];
                $fires[$id] ??= [];
                if ($this->fire($record, $entry, $at, $moment, $occasion, $guards[$id], $fires[$id])) {
                    $chains[$id] = $chain;
                }
            }
        }
        $this->started = [];

        return $fires;
    }

    /** Most changes end here: they touch nothing the rule watches. */
    private function mayLook(PastChange $past, ?Record $before, ?Record $after): bool
    {
        if ($this->rule->again !== null || $past->event !== null || $before === null || $after === null
            || isset($this->keys[Watch::ANY_FIELD])) {
            return true;
        }
        foreach ($past->set as $field => $value) {
            if (isset($this->keys[$field])) {
                return true;
            }
        }

        return false;
    }

    /**
     * Fires, unless the guard holds it back.
     *
     * @param  array{state: GuardState, keys: array<string, true>}  $guard
     * @param  list<PastFire>  $fires
     */
    private function fire(
        Record $record,
        int $entry,
        string $at,
        \DateTimeImmutable $moment,
        string $occasion,
        array &$guard,
        array &$fires,
    ): bool {
        $state = $guard['state'];
        $key = $this->rule->guard->key($record, $occasion, $state);
        if ($this->rule->guard->remembers()
            && $this->rule->guard->holdsBack($state, $record, $moment, static fn (string $used): bool => isset($guard['keys'][$used]))) {
            $this->heldBack++;

            return false;
        }
        $guard = ['state' => new GuardState($state->epoch, $state->count + 1, $moment), 'keys' => $guard['keys'] + [$key => true]];
        $fires[] = new PastFire($record->id, $entry, $at);

        return true;
    }

    /**
     * What time would have set off while the record stood as it did after one change and until the next.
     *
     * @param  array{state: GuardState, keys: array<string, true>}  $guard
     * @param  list<PastFire>  $fires
     */
    private function swept(Record $record, PastChange $change, ?PastChange $next, array &$guard, array &$fires): void
    {
        $after = max($change->at, $this->from);
        $until = min($next->at ?? $this->until, $this->until);
        if ($after >= $until) {
            return;
        }
        [$start, $end] = [new \DateTimeImmutable($after), new \DateTimeImmutable($until)];
        foreach ($this->moments($record, $start, $end) as [$moment, $occasion]) {
            if ($moment > $start && $moment <= $end && ! isset($guard['keys'][$occasion])) {
                $facts = $this->readsOthers ? $this->past->after($change->entry, $moment) : $this->at($moment);
                if ($this->rule->holds(new View($record, $facts))) {
                    $guard['keys'][$occasion] = true;
                    $this->fire(
                        $record,
                        $change->entry,
                        \VividLedger\Record\Value::instantText($moment),
                        $moment,
                        $occasion,
                        $guard,
                        $fires,
                    );
                }
            }
        }
    }

    private function listen(Quiet $quiet, PastChange $change): void
    {
        $field = $quiet->field->name ?? '';
        $this->quietSince = match (true) {
            $quiet->sort === Quiet::REPLY => $change->kind === 'reply' ? null : ($change->wrote ? $change : $this->quietSince),
            $quiet->sort === Quiet::VALUE => array_key_exists($field, $change->set)
                ? ($change->set[$field] === $quiet->value ? $change : null) : $this->quietSince,
            default => in_array($change->kind, $quiet->brokenBy(), true) ? $change : $this->quietSince,
        };
    }

    /** @return list<array{\DateTimeImmutable, string}> */
    private function moments(Record $record, \DateTimeImmutable $start, \DateTimeImmutable $end): array
    {
        $since = $this->quietSince;

        return $this->rule->trigger instanceof Swept ? $this->rule->trigger->moments(new Ahead(
            type: $this->type, record: $record, facts: $this->present, zone: $this->zone, from: $start, until: $end,
            silence: static fn (): array => [$since?->moment(), $since->entry ?? 0],
        )) : [];
    }

    private function at(\DateTimeImmutable $moment): Facts
    {
        $this->then->now = $moment;

        return $this->then;
    }

    /** Where conditions read only the record itself, its past is all that is needed. */
    private function facts(int $entry, \DateTimeImmutable $moment): Facts
    {
        return $this->readsOthers ? $this->past->after($entry, $moment) : $this->at($moment);
    }

    /** @return array<string, string|int|bool|null> */
    private function nothing(): array
    {
        $values = [];
        foreach ($this->type->fields as $name => $field) {
            if (! $field->system) {
                $values[$name] = $field->type === FieldType::Tick ? false : null;
            }
        }

        return $values;
    }
}
