<?php

declare(strict_types=1);

namespace VividLedger\Rule;

use Closure;
use VividLedger\Condition\ChildrenRead;
use VividLedger\Condition\Condition;
use VividLedger\Condition\Tree;
use VividLedger\Facts\Facts;
use VividLedger\Facts\OverlayFacts;
use VividLedger\Facts\View;
use VividLedger\House\Person;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rule\Guard\RepeatGuard;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Line\Writes;
use VividLedger\Rule\Line\Written;
use VividLedger\Rule\Timing\HearsEachYes;
use VividLedger\Rule\Trigger\Trigger;
use VividLedger\Rule\Trigger\Watch;
use VividLedger\Schema\Path;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;

/** One page of a rule, read and sound. */
final class Rule
{
    /** Whether what an index finds by its watch is all the rule asks of a change. */
    public readonly bool $asksNoMore;

    /** Whether the rule is judged on the changed record itself. */
    public readonly bool $own;

    /** Whether the conditions count other records, whose past has to be laid out before they can be judged on it. */
    private readonly bool $counts;

    /** @var ?list<string> */
    private ?array $elsewhere = null;

    /** @var ?list<Placed> */
    private ?array $opening = null;

    /** @var ?list<ChildrenRead> */
    private ?array $childrenRead = null;

    /** @var ?Closure(View): bool */
    private ?Closure $test = null;

    /** @var ?Closure(View): bool */
    private ?Closure $againTest = null;

    /** @var ?Closure(View): bool */
    private ?Closure $untilTest = null;

    /**
     * @param  int  $id  of the rule; 0 for one that is not kept anywhere
     * @param  int  $page  the number of the page, from 1
     * @param  string  $on  name of the record type
     * @param  list<Placed>  $lines  in the order of the page
     * @param  ?Condition  $again  makes a used guard ready again when it becomes true
     * @param  string  $eitherOr  name of the either/or set the rule stands in; empty for none
     * @param  ?Condition  $until  ends a run early when it holds
     * @param  ?Limits  $limits  what no line may break
     * @param  bool  $byHand  whether it may be run by hand besides
     * @param  array<string, Person>  $left  people whom it names and who have left the company, by the place in its file
     */
    public function __construct(
        public readonly int $id,
        public readonly int $page,
        public readonly string $name,
        public readonly string $on,
        public readonly Trigger $trigger,
        public readonly Condition $condition,
        public readonly RepeatGuard $guard,
        public readonly array $lines,
        public readonly ?Condition $again = null,
        public readonly string $eitherOr = '',
        public readonly ?Condition $until = null,
        public readonly ?Limits $limits = null,
        public readonly bool $byHand = false,
        public readonly array $left = [],
    ) {
        $watch = $trigger->watch();
        $this->own = $watch->type === $on && $trigger->isOwn();
        $this->counts = Tree::counts($condition);
        $this->asksNoMore = $trigger->asksNoMore() && $again === null && $watch->events === [] && ! $byHand;
    }

    /** The condition as a closure, compiled at the first use. */
    public function holds(View $view): bool
    {
        $test = $this->test ??= $this->condition->compile();

        return $test($view);
    }

    /** Whether a change is one that the trigger waits for. */
    public function isStartedBy(Change $change, Facts $facts): bool
    {
        if ($change->event?->ruleId !== null && $change->event->ruleId !== $this->id) {
            return false;
        }
        if ($this->isStartedWhole($change)) {
            return $change->record()->type === $this->on;
        }

        return $change->record()->type === $this->trigger->watch()->type && $this->trigger->accepts($change, $facts);
    }

    /** Whether it is the rule as such that is started on the record, whatever it waits for: put in force, or run by hand. */
    public function isStartedWhole(Change $change): bool
    {
        return $change->event?->kind->startsAnyRule() === true || ($this->byHand && $change->event?->kind === EventKind::ByHand);
    }

    /** Whether a change is the rule's to answer: its trigger takes it, and it touches what the rule watches. */
    public function looksAt(Change $change, Facts $facts): bool
    {
        return $this->isStartedBy($change, $facts)
            && ($this->isStartedWhole($change) || array_intersect($this->watch()->keys(), Watch::keysOf($change)) !== []);
    }

    /** The record and its facts as they were before a change of it, or of a related record; null when it did not exist. */
    public function before(Change $change, Record $subject, Facts $facts, Schema $schema): ?View
    {
        if ($change->isAbout($subject) && $change->before === null) {
            return null;
        }
        if ($this->own && ! $this->counts) {
            return new View($change->before ?? $subject, $facts);
        }
        $then = new OverlayFacts($facts, $schema);
        if ($change->before === null) {
            $then->remove($change->record());
        } else {
            $then->lay($change->before);
        }

        return new View($change->isAbout($subject) ? ($change->before ?? $subject) : $subject, $then);
    }

    /** Whether a change of the record makes the used guard ready again. */
    public function isReadyAgain(Change $change, Facts $facts): bool
    {
        if ($this->again === null || $change->event !== null || $change->before === null || $change->after === null
            || $change->record()->type !== $this->on) {
            return false;
        }
        $test = $this->againTest ??= $this->again->compile();

        return $test(new View($change->after, $facts, $change)) && ! $test(new View($change->before, $facts));
    }

    /**
     * What the rule watches in the index.
     *
     * A rule that waits for its conditions to become true and takes any change needs to look only when a field changes
     * that its conditions read.
     */
    public function watch(): Watch
    {
        $watch = $this->trigger->watch();
        if ($watch->fields !== null || ! $this->own || ! $this->guard->wantsTurn()) {
            return $watch;
        }

        return $watch->withFields($this->read($this->condition->paths()));
    }

    /** Whether what ends a run holds now, or through the change at hand. */
    public function isOver(View $view): bool
    {
        if ($this->until === null) {
            return false;
        }
        $test = $this->untilTest ??= $this->until->compile();

        return $test($view);
    }

    public function line(int $place): ?Placed
    {
        foreach ($this->lines as $placed) {
            if ($placed->place === $place) {
                return $placed;
            }
        }

        return null;
    }

    /** @return list<Placed> the lines that stand in no case: what is done or pencilled in as it fires */
    public function opening(): array
    {
        return $this->opening ??= array_values(array_filter($this->lines, static fn (Placed $placed): bool => $placed->under === null));
    }

    /** Whether the rule goes on after it has fired. */
    public function lasts(): bool
    {
        foreach ($this->lines as $placed) {
            if ($placed->timing !== null) {
                return true;
            }
        }

        return $this->limits !== null;
    }

    /** What can end or move a run that is in play, or take the point from a task, is watched besides; null when nothing can. */
    public function watchRun(): ?Watch
    {
        $lapsing = array_values(array_filter(array_map(static fn (Placed $placed): ?Condition => $placed->lapses, $this->lines)));
        if (! $this->lasts() && $lapsing === []) {
            return null;
        }
        $fields = [];
        $waiting = array_values(array_filter(array_map(
            static fn (Placed $placed): ?Condition => $placed->timing?->becomes(), $this->lines,
        )));
        foreach ([...array_filter([$this->until]), ...$lapsing, ...$waiting] as $condition) {
            $read = $this->read($condition->paths());
            $fields = $fields === null || $read === null ? null : [...$fields, ...$read];
        }
        $waits = false;
        $hears = $this->until !== null || $waiting !== [];
        foreach ($this->lines as $placed) {
            $hangsOn = $placed->timing?->hangsOn();
            if ($hangsOn !== null && $fields !== null) {
                $fields[] = $hangsOn;
            }
            $waits = $waits || $placed->timing?->waitsFor() !== null;
        }
        // That a sign-off has ended can be what a condition is about, whichever rule asked for it.
        $heard = $hears ? [...EventKind::ARRIVING, EventKind::SignedOff] : [];
        $events = [...$heard, ...array_filter(
            $waits ? EventKind::AWAITED : [], static fn (EventKind $kind): bool => ! in_array($kind, $heard, true),
        )];

        return new Watch($this->on, fields: $fields === null ? null : array_values(array_unique($fields)), events: $events);
    }

    /** Whether a line waits for each yes to the sign-off that a line with this key asks for. */
    public function hearsEachYes(string $key): bool
    {
        foreach ($key === '' ? [] : $this->lines as $placed) {
            if ($placed->timing instanceof HearsEachYes && $placed->timing->waitsFor() === $key) {
                return true;
            }
        }

        return false;
    }

    /** Whether people can have it run on a record, with its trigger or besides it. */
    public function runsByHand(): bool
    {
        return $this->byHand || in_array(EventKind::ByHand, $this->trigger->watch()->events, true);
    }

    /** Being run by hand is watched besides. */
    public function watchHand(): ?Watch
    {
        return $this->byHand ? new Watch($this->on, events: [EventKind::ByHand]) : null;
    }

    /** What makes the guard ready again is watched besides. */
    public function watchAgain(): ?Watch
    {
        return $this->again === null ? null : new Watch($this->on, fields: $this->read($this->again->paths()));
    }

    /**
     * @param  list<Path>  $paths
     * @return ?list<string> names of the record's own fields they begin with; null when any change may matter
     */
    private function read(array $paths): ?array
    {
        $read = [];
        foreach ($paths as $path) {
            if ($path->first()->system) {
                return null;
            }
            $read[$path->first()->name] = true;
        }

        return array_keys($read);
    }

    /** @return list<ChildrenRead> the children on which it turns whether the rule fires and what its lines do */
    public function childrenRead(): array
    {
        if ($this->childrenRead !== null) {
            return $this->childrenRead;
        }
        $read = $this->trigger instanceof ReadsChildren ? $this->trigger->childrenRead() : [];
        $lapses = array_map(static fn (Placed $placed): ?Condition => $placed->lapses, $this->lines);
        $waiting = array_map(static fn (Placed $placed): ?Condition => $placed->timing?->becomes(), $this->lines);
        foreach (array_filter([$this->condition, $this->again, $this->until, ...$lapses, ...$waiting]) as $condition) {
            array_push($read, ...ChildrenRead::in($condition));
        }
        foreach ($this->lines as $placed) {
            array_push($read, ...($placed->line instanceof ReadsChildren ? $placed->line->childrenRead() : []));
        }

        return $this->childrenRead = $read;
    }

    /** @return list<Watch> what alters the children on which the rule turns is watched besides */
    public function watchChildren(): array
    {
        return array_map(Watch::ofChildren(...), $this->childrenRead());
    }

    /** @return list<string> names of the reference fields through which a change may alter children on which the rule turns */
    public function readsOver(Change $change): array
    {
        $over = [];
        foreach ($this->childrenRead() as $read) {
            if ($read->type === $change->record()->type
                && array_intersect(Watch::ofChildren($read)->keys(), Watch::keysOf($change)) !== []) {
                $over[] = $read->by;
            }
        }

        return $over;
    }

    /** @return list<string> names of the types of which its lines write other records than the one it fires for, at once */
    public function writesElsewhere(RecordType $own): array
    {
        return $this->elsewhere ??= self::elsewhere(
            array_merge(...array_map(
                static fn (Placed $placed): array => $placed->timing === null ? $placed->withItsCases() : [], $this->opening(),
            )),
            $own,
        );
    }

    /**
     * @param  array<Placed>  $lines
     * @return list<string>
     */
    public static function elsewhere(array $lines, RecordType $own): array
    {
        $types = [];
        foreach ($lines as $placed) {
            foreach ($placed->line instanceof Writes ? $placed->line->writes($own) : [] as $written) {
                if (! $written->isOwn) {
                    $types[$written->type] = $written->type;
                }
            }
        }

        return array_values($types);
    }

    /** @return list<Written> what its lines may write */
    public function writes(RecordType $own): array
    {
        $written = [];
        foreach ($this->lines as $placed) {
            array_push($written, ...($placed->line instanceof Writes ? $placed->line->writes($own) : []));
        }

        return $written;
    }
}
