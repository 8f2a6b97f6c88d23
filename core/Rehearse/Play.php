<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Engine\Decision;
use VividLedger\Engine\Engine;
use VividLedger\Engine\ExecutedStep;
use VividLedger\Engine\HeldBack;
use VividLedger\Engine\OneRuleBook;
use VividLedger\Explain\EntrySerializer;
use VividLedger\Explain\Told;
use VividLedger\Facts\Facts;
use VividLedger\Facts\PencilledLine;
use VividLedger\Formula\ComputedFields;
use VividLedger\Record\CauseKind;
use VividLedger\Record\Change;
use VividLedger\Record\Event;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Rule;
use VividLedger\Schema\Field;
use VividLedger\Schema\Schema;
use VividLedger\Time\FixedClock;

/**
 * The engine with everything it needs on paper: saves and events are answered, time passes, lines fall due. The ledger it
 * writes is the one the application would write.
 */
final class Play
{
    /** @var list<PaperEntry> */
    public array $entries = [];

    public readonly Paper $paper;

    private readonly EntrySerializer $teller;

    private readonly Upcoming $upcoming;

    public readonly PaperDesk $desk;

    public readonly PaperPost $post;

    /** @var list<Tends> */
    private readonly array $tends;

    public function __construct(
        private readonly Schema $schema,
        private readonly \DateTimeZone $zone,
        private readonly Engine $engine,
        private readonly PaperBook $book,
        Facts $below,
        \DateTimeImmutable $now,
    ) {
        $this->paper = new Paper($below, $schema, $now);
        $this->teller = new EntrySerializer($schema, $book);
        $this->desk = new PaperDesk($this, $zone);
        $this->post = new PaperPost($this, $schema, $zone);
        $this->tends = [$this->desk, $this->post, new PaperLine($this)];
        $this->upcoming = new Upcoming($book->rules, $schema, $zone, $now);
    }

    /**
     * Saves a record as somebody would.
     *
     * @param  array<string, string|int|bool|null>  $values  normalised, those that are set
     * @return Record as it is in the end
     */
    public function save(?Record $before, int $id, string $type, array $values, ?int $actor, bool $isWhatIf = false): Record
    {
        $after = $this->made($before, $id, $type, $values, $actor);
        $change = new Change($before, $after, $actor, $this->paper->now);
        if ($before !== null && $this->paper->lockOn($type, $id) !== null) {
            $this->enter(new Told('locked_out', $before, null, []), null, isWhatIf: $isWhatIf);

            return $before;
        }
        if ($before === null || $change->fields() !== []) {
            $this->answer($change, $isWhatIf);
        }

        return $this->paper->record($type, $id) ?? $after;
    }

    /**
     * Sets fields for something that a rule does in time; a lock keeps people from a record, not this.
     *
     * @param  array<string, string|int|bool|null>  $values  normalised
     * @return Record as it is in the end
     */
    public function correct(Record $before, array $values): Record
    {
        $after = $this->made($before, $before->id, $before->type, $values, null);
        $change = new Change($before, $after, null, $this->paper->now, CauseKind::Rule);
        if ($change->fields() !== []) {
            $this->answer($change);
        }

        return $this->paper->record($before->type, $before->id) ?? $after;
    }

    /**
     * A record as it would be after a save, before any rule has answered.
     *
     * @param  array<string, string|int|bool|null>  $values  normalised, those that are set
     */
    public function made(?Record $before, int $id, string $type, array $values, ?int $actor): Record
    {
        $stamp = Value::instantText($this->paper->now);
        $stamps = [
            'updated_at' => $stamp, 'updated_by' => $actor,
        ] + ($before === null ? ['created_at' => $stamp, 'created_by' => $actor] : []);
        $all = $before->values ?? array_map(
            static fn (Field $field): string|int|bool|null => $field->begun(),
            $this->schema->types[$type]->fields,
        );

        return new Record(
            $type,
            $id,
            ($before->version ?? 0) + 1,
            ComputedFields::with($this->schema->types[$type], array_replace($all, $values, $stamps)),
        );
    }

    /** Something happens to a record and changes none of its fields. */
    public function recordEvent(
        Record $record,
        Event $event,
        ?int $actor,
        bool $isWhatIf = false,
        ?int $cause = null,
        ?Rule $of = null,
    ): void {
        $now = $this->paper->record($record->type, $record->id);
        if ($now !== null) {
            $this->answer(Change::event($now, $event, $actor, $this->paper->now), $isWhatIf, $cause, $of);
        }
    }

    /** Answers a change or an event that comes from outside. */
    public function answer(Change $change, bool $isWhatIf = false, ?int $cause = null, ?Rule $of = null): void
    {
        $decision = $this->engine->decide($change, $this->book, $this->paper, new FixedClock($this->paper->now));
        $number = null;
        if ($change->event === null) {
            $number = $this->enter($this->teller->save($change), $cause, isWhatIf: $isWhatIf);
        } elseif ($change->event->kind->hasOwnEntry()) {
            $number = $this->enter(
                new Told($change->event->kind->value, $change->record(), $of, array_filter(
                    ['text' => $change->event->text, 'from' => $change->event->from],
                    static fn (string $kept): bool => $kept !== '',
                )),
                $cause,
                isWhatIf: $isWhatIf,
            );
        }
        if ($decision->refusal === null && $change->event === null) {
            $change->after === null ? $this->paper->remove($change->record()) : $this->paper->keep($change->after);
        }
        $this->take($decision, $change->record(), $number);
    }

    /** What a rule could not answer while the record was locked. */
    public function answerAgain(HeldBack $held, int $cause): void
    {
        $for = $this->paper->record($held->record->type, $held->record->id);
        $now = $held->answered->isAbout($held->record) ? $for
            : $this->paper->record($held->answered->record()->type, $held->answered->record()->id);
        $rule = $this->book->page($held->rule->id, $held->rule->page);
        if ($for === null || $now === null || $rule === null) {
            return;
        }
        $change = $held->answered->again($now, $for, $this->paper->now);
        $book = new OneRuleBook($this->book, $change, $rule);
        $this->take($this->engine->decide($change, $book, $this->paper, new FixedClock($this->paper->now)), $for, $cause);
    }

    /** Lets time pass up to a moment: what falls due is done, and what time sets off starts, each at its time. */
    public function passTo(\DateTimeImmutable $until, ?Record $about = null, int $mostEntries = PHP_INT_MAX): void
    {
        while (count($this->entries) < $mostEntries) {
            $line = $this->paper->runs->nextDue();
            $start = $about === null ? null : $this->upcoming->next(
                $this->paper->record($about->type, $about->id),
                $this->entries,
                $this->paper,
                $until,
            );
            $wakes = $this->wakes();
            // What was due before now, a line whose date had passed when it was pencilled in, takes its turn now.
            $due = $line?->due === null ? null : max($line->due, $this->paper->now);
            if ($wakes !== null && $wakes[0] <= $until && ($start === null || $wakes[0] < $start->at)
                && ($due === null || $wakes[0] <= $due)) {
                $this->paper->now = max($this->paper->now, $wakes[0]);
                $wakes[1]();
            } elseif ($line !== null && $due !== null && $line->due <= $until && ($start === null || $due < $start->at)) {
                $this->paper->now = $due;
                $this->fallDue($this->paper->runs->atMomentOf($line));
            } elseif ($start !== null) {
                $this->paper->now = max($this->paper->now, $start->at);
                $this->upcoming->came($start);
                $this->start($start);
            } else {
                break;
            }
        }
        $this->paper->now = max($this->paper->now, $until);
    }

    /**
     * Writes down what somebody or time has done, which rules have not answered yet.
     *
     * @param  array<string, mixed>  $data
     * @return int the number of the entry
     */
    public function note(string $kind, Record $record, Rule $rule, array $data, int $cause, bool $isWhatIf): int
    {
        return $this->enter(new Told($kind, $record, $rule, $data), $cause, isWhatIf: $isWhatIf);
    }

    /** When a pencilled line falls due, or something has to be tended; null when nothing is to come. */
    public function nextDue(): ?\DateTimeImmutable
    {
        $moments = array_filter([$this->paper->runs->nextDue()?->due, $this->wakes()[0] ?? null]);

        return $moments === [] ? null : min($moments);
    }

    /** @return ?array{\DateTimeImmutable, \Closure(): void} what goes on by itself next */
    private function wakes(): ?array
    {
        $next = null;
        foreach ($this->tends as $one) {
            $wakes = $one->next();
            $next = $wakes !== null && ($next === null || $wakes[0] < $next[0]) ? $wakes : $next;
        }

        return $next;
    }

    public function start(Start $start): void
    {
        $event = new Event($start->kind, $start->occasion, $start->said, $start->rule->id);
        $this->answer(Change::event($start->record, $event, null, $this->paper->now, CauseKind::Rule));
    }

    /** @param  list<PencilledLine>  $moment  the lines that fall due together, in order */
    private function fallDue(array $moment): void
    {
        $isFirst = true;
        foreach ($moment as $index => $one) {
            // What the lines before it have struck out or moved is not done any more.
            $stands = $this->paper->runs->stands($one);
            if ($stands !== null) {
                $this->line(
                    $stands,
                    $isFirst,
                    array_map(static fn (PencilledLine $next): int => $next->id, array_slice($moment, $index + 1)),
                );
                $isFirst = false;
            }
        }
    }

    /** @param  list<int>  $next  ids of the lines whose turn comes after it, at the same moment */
    private function line(PencilledLine $line, bool $isFirst, array $next): void
    {
        $rule = $this->book->page($line->run->rule, $line->run->page);
        $record = $this->paper->record($line->run->type, $line->run->record);
        if ($rule === null || $record === null) {
            $this->paper->runs->forget($line);

            return;
        }
        $decision = $this->engine->fallDue(
            $line,
            $rule,
            $record,
            $this->book,
            $this->paper,
            new FixedClock($this->paper->now),
            false,
            $isFirst,
            $next,
        );
        if ($decision->refusal !== null) {
            $this->paper->runs->forget($line);
        }
        $this->take($decision, $record, $this->paper->runs->beginning($line->run));
    }

    private function take(Decision $decision, Record $record, ?int $cause): void
    {
        if ($decision->refusal !== null) {
            $refusal = $decision->refusal;
            $this->enter(
                new Told(
                    'refused',
                    $record,
                    $refusal->rule,
                    ['message' => $refusal->message, 'field' => $refusal->field, 'why' => $refusal->why],
                ),
                $cause,
            );

            return;
        }
        $numbers = [];
        foreach ($decision->steps as $place => $step) {
            $parent = $step->parent();
            $tasks = count($this->paper->runs->tasks);
            // Told before it is taken in, while the lines it strikes out are still there.
            $told = $this->teller->step($step);
            $this->paper->takeStep($step, count($this->entries) + 1);
            $numbers[$place] = $this->enter(
                $told, $parent === null ? $cause : $numbers[$parent],
                $step instanceof ExecutedStep ? $step->performance->messages : [], array_slice($this->paper->runs->tasks, $tasks),
            );
        }
        $this->paper->take($decision);
        foreach ($this->tends as $one) {
            $one->tellWithdrawn();
        }
    }

    /**
     * @param  list<\VividLedger\Message\Message>  $messages
     * @param  list<PaperTask>  $tasks
     */
    private function enter(Told $told, ?int $cause, array $messages = [], array $tasks = [], bool $isWhatIf = false): int
    {
        $this->entries[] = new PaperEntry(
            number: count($this->entries) + 1, at: $this->paper->now, told: $told, cause: $cause, messages: $messages, tasks: $tasks,
            isWhatIf: $isWhatIf,
        );

        return count($this->entries);
    }
}
