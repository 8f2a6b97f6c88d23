<?php

declare(strict_types=1);

namespace App\Evidence\Rehearsal;

use App\Evidence\Rules\RulesInForce;
use App\Models\Ledger\Entry;
use App\Store\People\PeopleStore;
use App\Store\Records\PaperFacts;
use App\Store\Records\RecordHistory;
use App\Store\Records\Timelines;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Database\Eloquent\Builder;
use VividLedger\Engine\Engine;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Value;
use VividLedger\Rehearse\LookBack;
use VividLedger\Rehearse\PaperBook;
use VividLedger\Rehearse\PastFire;
use VividLedger\Rehearse\Play;
use VividLedger\Rule\Rule;
use VividLedger\Rule\Trigger\Swept;

/** Looks back over the recorded history with a rule, beside the page in force; what it finds comes piece by piece. */
final readonly class LookBacks
{
    private const MOST_LISTED = 400;

    /** For so many firings it is counted who would have got what; that plays each of them to its end. */
    private const MOST_PLAYED = 100;

    private const SECONDS_BETWEEN = 0.4;

    public function __construct(
        private SchemaStore $schemas,
        private RecordedPast $past,
        private Timelines $timelines,
        private PaperFacts $facts,
        private PeopleStore $names,
        private RulesInForce $rules,
        private Company $company,
        private RecordHistory $history,
    ) {
    }

    /** @return iterable<array<string, mixed>> pieces: how far it has come and what it has found; the last is final */
    public function over(Rule $rule, \DateTimeImmutable $from, \DateTimeImmutable $until): iterable
    {
        $rules = $this->rules->all();
        $place = array_search($rule->id, array_map(static fn (Rule $known): int => $known->id, $rules), true);
        $inForce = $place === false ? null : $rules[$place];
        // A rule that was never in force would stand behind all others.
        $before = array_slice($rules, 0, $place === false ? null : $place);
        $earlier = array_fill_keys(array_map(static fn (Rule $known): int => $known->id, $before), true);
        $span = [Value::instantText($from), Value::instantText($until)];
        $make = fn (Rule $of): LookBack => new LookBack(
            rule: $of, schema: $this->schemas->schema(), zone: $this->company->zone(), past: $this->past, present: $this->facts,
            from: $span[0], until: $span[1], earlier: $earlier,
        );
        [$own, $other] = [$make($rule), $inForce === null ? null : $make($inForce)];
        $types = array_values(array_unique([$own->type->name, $other?->type->name ?? $own->type->name]));
        $count = static fn (string $type): int => Entry::query()->where('record_type', $type)->distinct()->count('record_id');
        $sum = [
            'types' => $types, 'records' => 0, 'of' => array_sum(array_map($count, $types)), 'changes' => 0, 'fires' => 0,
            'otherFires' => 0,
            'appear' => 0, 'vanish' => 0, 'weeks' => [], 'otherWeeks' => [],
        ];
        $listed = [];
        $told = microtime(true);
        // Record by record, where both have the record's own past before them; else what each finds is kept until all is known.
        $streams = $rule->own && ($inForce->own ?? true);
        $kept = $keptTheirs = [];
        foreach ($types as $type) {
            foreach ($this->past->ofType($type) as $id => $changes) {
                $sum['records']++;
                $sum['changes'] += count($changes);
                $fires = $own->type->name === $type ? $own->of($id, $changes) : [];
                $theirs = $other?->type->name === $type ? $other->of($id, $changes) : [];
                if ($streams) {
                    $this->count($sum, $fires, $theirs, $listed);
                }
                if (! $streams && $fires !== []) {
                    $kept[$id] = $fires;
                }
                if (! $streams && $theirs !== []) {
                    $keptTheirs[$id] = $theirs;
                }
                if (microtime(true) - $told > self::SECONDS_BETWEEN) {
                    $told = microtime(true);
                    yield $this->piece($sum, $own, $listed, $inForce !== null, false);
                }
            }
        }
        if (! $streams) {
            [$fires, $theirs] = [$own->settle() + $kept, ($other?->settle() ?? []) + $keptTheirs];
            foreach ($fires + $theirs as $id => $_) {
                $this->count($sum, $fires[$id] ?? [], $theirs[$id] ?? [], $listed);
            }
        }
        usort($listed, static fn (array $one, array $other): int => $other['at'] <=> $one['at']);
        yield $this->piece($sum, $own, $listed, $inForce !== null, false);
        yield $this->piece($sum, $own, $this->titled($rule->on, $listed), $inForce !== null, true)
            + $this->reach($rule, $listed) + ['clashes' => $this->clashes($rule, $listed)];
    }

    /**
     * @param  array<string, mixed>  $sum
     * @param  list<PastFire>  $fires
     * @param  list<PastFire>  $theirs
     * @param  list<array<string, mixed>>  $listed
     */
    private function count(array &$sum, array $fires, array $theirs, array &$listed): void
    {
        if ($fires === [] && $theirs === []) {
            return;
        }
        $keys = $theirs === [] ? [] : array_map(static fn (PastFire $fire): string => $fire->key(), $theirs);
        foreach ($fires as $fire) {
            $sum['fires']++;
            $week = self::week($fire->at);
            $sum['weeks'][$week] = ($sum['weeks'][$week] ?? 0) + 1;
            $isNew = $keys === [] || ! in_array($fire->key(), $keys, true);
            $sum['appear'] += $isNew ? 1 : 0;
            $this->list($listed, $fire, $isNew ? 'appears' : 'both');
        }
        $own = $theirs === [] ? [] : array_map(static fn (PastFire $fire): string => $fire->key(), $fires);
        foreach ($theirs as $fire) {
            $sum['otherFires']++;
            $week = self::week($fire->at);
            $sum['otherWeeks'][$week] = ($sum['otherWeeks'][$week] ?? 0) + 1;
            if (! in_array($fire->key(), $own, true)) {
                $sum['vanish']++;
                $this->list($listed, $fire, 'vanishes');
            }
        }
    }

    /** @param  list<array<string, mixed>>  $listed */
    private function list(array &$listed, PastFire $fire, string $how): void
    {
        $listed[] = ['record' => $fire->record, 'entry' => $fire->entry, 'at' => $fire->at, 'how' => $how];
        if (count($listed) > 2 * self::MOST_LISTED) {
            usort($listed, static fn (array $one, array $other): int => $other['at'] <=> $one['at']);
            $listed = array_slice($listed, 0, self::MOST_LISTED);
        }
    }

    /**
     * @param  list<array<string, mixed>>  $listed
     * @return list<array<string, mixed>> the latest, with what each record is called now
     */
    private function titled(string $type, array $listed): array
    {
        $latest = array_slice($listed, 0, self::MOST_LISTED);
        $this->names->rememberTitles($type, array_column($latest, 'record'));

        return array_map(fn (array $fire): array => $fire + ['title' => $this->names->title($type, $fire['record'])], $latest);
    }

    /**
     * @param  array<string, mixed>  $sum
     * @param  list<array<string, mixed>>  $listed
     * @return array<string, mixed>
     */
    private function piece(array $sum, LookBack $own, array $listed, bool $hasPage, bool $isFinal): array
    {
        ksort($sum['weeks']);
        ksort($sum['otherWeeks']);

        return [
            'final' => $isFinal, 'hasPage' => $hasPage, 'heldBack' => $own->heldBack,
            'list' => $isFinal ? array_slice($listed, 0, self::MOST_LISTED) : [],
            'weeks' => (object) $sum['weeks'], 'otherWeeks' => (object) $sum['otherWeeks'],
        ] + $sum;
    }

    /**
     * Who would have got how many tasks and messages, from the latest firings played to their ends.
     *
     * @param  list<array<string, mixed>>  $listed
     * @return array{played: int, tasks: array<string, int>, messages: array<string, int>}
     */
    private function reach(Rule $rule, array $listed): array
    {
        $tasks = [];
        $messages = [];
        $played = 0;
        foreach ($listed as $fire) {
            if ($fire['how'] === 'vanishes' || $played >= self::MOST_PLAYED) {
                continue;
            }
            $at = new \DateTimeImmutable($fire['at']);
            $record = $this->timelines->record($rule->on, $fire['record'], $fire['entry']);
            if ($record === null) {
                continue;
            }
            $played++;
            $facts = $this->past->after($fire['entry'], $at);
            [$schema, $zone] = [$this->schemas->schema(), $this->company->zone()];
            $play = new Play(
                schema: $schema, zone: $zone, engine: new Engine($schema, $zone), book: new PaperBook([$rule]), below: $facts, now: $at,
            );
            $play->paper->asIfNew($rule->id);
            $play->paper->keep($record);
            $kind = $rule->trigger instanceof Swept ? $rule->trigger::event() : EventKind::PutInForce;
            $play->answer(Change::event(
                record: $record, event: new Event($kind, 'looked back', '', $rule->id), actor: null, at: $at, cause: CauseKind::Rule,
                told: $this->history->change($fire['entry'])?->alteration(),
            ));
            $play->passTo($at->modify('+400 days'), null, 60);
            foreach ($play->entries as $entry) {
                foreach ($entry->tasks as $task) {
                    $name = $task->given->person->name ?? 'nobody';
                    $tasks[$name] = ($tasks[$name] ?? 0) + 1;
                }
                foreach ($entry->messages as $message) {
                    foreach ($message->to as $address) {
                        $messages[$address->name] = ($messages[$address->name] ?? 0) + 1;
                    }
                }
            }
        }
        arsort($tasks);
        arsort($messages);

        return ['played' => $played, 'tasks' => array_slice($tasks, 0, 12), 'messages' => array_slice($messages, 0, 12)];
    }

    /**
     * Rules that fired on the same changes and set the same fields.
     *
     * @param  list<array<string, mixed>>  $listed
     * @return array<string, int> how often, by the name of the rule
     */
    private function clashes(Rule $rule, array $listed): array
    {
        $fields = [];
        foreach ($rule->writes($this->schemas->schema()->types[$rule->on]) as $written) {
            $fields[] = $written->field;
        }
        $entries = array_column(array_filter($listed, static fn (array $fire): bool => $fire['how'] !== 'vanishes'), 'entry');
        if ($fields === [] || $entries === []) {
            return [];
        }
        $clashes = [];
        $fired = Entry::query()->whereIn('cause_id', $entries)->where('kind', 'fired')->where('rule_id', '<>', $rule->id)
            ->whereHas('fields', static fn (Builder $set): Builder => $set->whereIn('field', $fields))->with('rule')->get();
        foreach ($fired as $entry) {
            $name = $entry->rule->name ?? '';
            $clashes[$name] = ($clashes[$name] ?? 0) + 1;
        }
        arsort($clashes);

        return $clashes;
    }

    /** The Monday of the week. */
    private static function week(string $at): string
    {
        static $weeks = [];

        $day = substr($at, 0, 10);

        return $weeks[$day] ??= (new \DateTimeImmutable($day))->modify('monday this week')->format('Y-m-d');
    }
}
