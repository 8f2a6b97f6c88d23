<?php

declare(strict_types=1);

namespace VividLedger\Rule\Performance;

use VividLedger\Facts\Awaited;
use VividLedger\Facts\Facts;
use VividLedger\Facts\OverlayFacts;
use VividLedger\Facts\View;
use VividLedger\Formula\ComputedFields;
use VividLedger\House\Person;
use VividLedger\Message\Address;
use VividLedger\Message\Message;
use VividLedger\Record\Change;
use VividLedger\Record\Display;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Record\Value;
use VividLedger\Rule\Limits;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Line\TaskGiven;
use VividLedger\Rule\Timing\Occasion;
use VividLedger\Rule\Timing\Timing;
use VividLedger\Schema\Field;
use VividLedger\Schema\RecordType;
use VividLedger\Schema\Schema;
use VividLedger\Time\OutOfTime;

/** What the lines of one firing do, gathered in order. Later lines see what earlier ones did. */
final class ActionContext
{
    /** @var list<array<string, mixed>> what each line did, as the entry keeps it */
    public array $outcomes = [];

    /** @var list<TaskGiven> */
    public array $tasks = [];

    /** @var list<Message> */
    public array $messages = [];

    /** @var list<array{Record, string, list<string>}> comments written, with the record they stand on, and what they show */
    public array $comments = [];

    /** @var list<array{Record, int, bool}> who follows a record from now on, or no longer */
    public array $follows = [];

    /** @var list<SignOffAsked> */
    public array $signOffs = [];

    /** @var list<SlipSent> */
    public array $slips = [];

    /** @var list<CallMade> */
    public array $calls = [];

    /** @var ?array{?string, string} the field and the message of a refusal */
    public ?array $refusal = null;

    /** @var list<Pencilling> lines that are to be done later */
    public array $pencilled = [];

    /** The line at hand. */
    public ?Placed $placed = null;

    /** The how-manieth time the line at hand is done. */
    public int $turn = 1;

    /** @var array<string, Record> records that lines made, by the name later lines use */
    public array $made = [];

    /** @var array<string, array{?Record, Record}> other records, as they were before the lines and as they are */
    private array $others = [];

    /**
     * @param  ?\DateTimeImmutable  $started  when the rule fired; null for now
     * @param  ?int  $run  whose line falls due; null where the rule fires
     * @param  ?\DateTimeImmutable  $counted  from when the time of the line counts, where that is not when the rule fired
     * @param  ?\DateTimeImmutable  $met  when what the line waited for became true; null where it waited for nothing
     */
    public function __construct(
        public Record $record,
        public readonly RecordType $type,
        public readonly OverlayFacts $facts,
        public readonly Schema $schema,
        public readonly Display $display,
        public readonly \DateTimeImmutable $now,
        public readonly \DateTimeZone $zone,
        public readonly Change $change,
        private readonly VersionBumps $marks,
        private readonly ?Limits $limits = null,
        private readonly ?\DateTimeImmutable $started = null,
        private readonly ?int $run = null,
        private ?\DateTimeImmutable $counted = null,
        private readonly ?\DateTimeImmutable $met = null,
    ) {
    }

    /** For looking only, at a record as it is: whom something reaches. */
    public static function looking(Record $record, Facts $facts, Schema $schema, \DateTimeZone $zone): self
    {
        $type = $schema->type($record->type) ?? throw new \LogicException("There is no record type {$record->type}.");
        $now = $facts->now();
        $event = new Event(EventKind::LineDue, 'look');

        return new self(
            record: $record, type: $type, facts: new OverlayFacts($facts, $schema), schema: $schema, display: new Display($facts, $zone),
            now: $now, zone: $zone, change: Change::event($record, $event, null, $now), marks: new VersionBumps(null),
        );
    }

    /** What the moments of lines depend on, for a line that waits for the tasks of another. */
    public function occasion(?Awaited $tasks = null, int $turn = 1, ?\DateTimeImmutable $met = null): Occasion
    {
        return self::occasionOf(
            record: $this->record, type: $this->type, facts: $this->facts, zone: $this->zone,
            started: $this->counted ?? $this->started ?? $this->now, tasks: $tasks, turn: $turn, met: $met,
        );
    }

    public static function occasionOf(
        Record $record,
        RecordType $type,
        Facts $facts,
        \DateTimeZone $zone,
        \DateTimeImmutable $started,
        ?Awaited $tasks = null,
        int $turn = 1,
        ?\DateTimeImmutable $met = null,
    ): Occasion {
        $owner = $record->value($type->owner);

        return new Occasion(
            started: $started, record: $record, calendars: $facts, owner: is_int($owner) ? $facts->person($owner) : null, zone: $zone,
            turn: $turn, tasks: $tasks, met: $met,
        );
    }

    /**
     * Does what is to be done at once of these lines, and pencils in the others. Of lines that stand in a case the time counts from
     * when their case is known.
     *
     * @param  list<Placed>  $lines
     */
    public function begin(array $lines): void
    {
        $this->counted = $this->run === null ? null : $this->now;
        foreach ($lines as $placed) {
            if ($placed->timing === null) {
                $this->doNow($placed);
                if ($this->refusal !== null) {
                    return;
                }
            }
        }
        foreach ($lines as $placed) {
            if ($placed->timing !== null) {
                $waitsFor = $placed->timing->waitsFor();
                $this->pencilIn($placed, $placed->timing, $waitsFor === null ? null : $this->awaited($waitsFor)
                    ?? ($this->run === null ? null : $this->facts->tasksOf($this->run, $waitsFor)));
            }
        }
    }

    /** Does a line now, or pencils it in where quiet hours do not let it. */
    public function doNow(Placed $placed): void
    {
        $this->placed = $placed;
        $allowed = $placed->isMessage() ? $this->allowed($this->now) : $this->now;
        if ($allowed > $this->now) {
            $this->pencil(new Pencilling(
                place: $placed->place, turn: $this->turn, due: $allowed, kind: $placed->kind, why: 'quiet hours', meant: $this->now,
                counted: $this->counted,
            ));
        } else {
            $placed->perform($this);
        }
    }

    /** The moment itself, or the next one that the rule's quiet hours allow. */
    public function allowed(\DateTimeImmutable $at): \DateTimeImmutable
    {
        return $this->limits === null ? $at : $this->limits->allowed($at, $this->occasion());
    }

    /** Pencils a line in for later, at a moment that is allowed. */
    public function later(Placed $placed, int $turn, ?\DateTimeImmutable $due, ?\DateTimeImmutable $met = null): void
    {
        $allowed = $due === null ? null : $this->allowed($due);
        $this->pencil(new Pencilling(
            place: $placed->place, turn: $turn, due: $allowed, kind: $placed->kind, meant: $allowed == $due ? null : $due,
            counted: $this->counted, met: $met,
        ));
    }

    /** Pencils a line in for when its timing says; one whose moment cannot be kept is not, and the entry says so. */
    public function pencilIn(Placed $placed, Timing $timing, ?Awaited $tasks): void
    {
        try {
            $becomes = $timing->becomes();
            $met = $becomes !== null && ($becomes->compile())($this->view()) ? $this->now : null;
            $this->later($placed, 1, $timing->due($this->occasion($tasks, met: $met)), $met);
        } catch (OutOfTime $never) {
            $this->failed($placed->said, "it cannot be pencilled in: {$never->getMessage()}");
        }
    }

    /**
     * Whether a message may go to all of these now. One that may not waits, as a line pencilled in again, or is dropped; either
     * is told.
     *
     * @param  list<Address>  $addresses
     */
    public function mayWrite(array $addresses, string $what): bool
    {
        foreach ($addresses as $address) {
            $until = $this->limits?->messageWaits($address, $this->facts, $this->occasion(), $this->now);
            if ($until === null || $this->placed === null) {
                continue;
            }
            $why = "{$this->limits->capSaid()}, {$address->name}";
            if ($this->limits->drops) {
                $this->outcomes[] = ['kind' => 'dropped', 'label' => $what, 'why' => $why];
            } else {
                $allowed = $this->allowed($until);
                $this->pencil(new Pencilling(
                    place: $this->placed->place, turn: $this->turn, due: $allowed, kind: $this->placed->kind, why: $why,
                    counted: $this->counted, met: $this->met,
                ));
                $this->outcomes[] = ['kind' => 'waits', 'label' => $what, 'why' => $why, 'until' => Value::instantText($allowed)];
            }

            return false;
        }

        return true;
    }

    /** The tasks that a line has given in this performance; null when it gave none. */
    public function tasksGiven(string $key): ?Awaited
    {
        $tasks = array_filter($this->tasks, static fn (TaskGiven $task): bool => $task->key === $key);
        $dues = array_filter(array_map(static fn (TaskGiven $task): ?\DateTimeImmutable => $task->due, $tasks));

        return $tasks === [] ? null : new Awaited(count($tasks), $this->now, $dues === [] ? null : max($dues));
    }

    /** What a line with a key has given or asked for in this performance, for lines that wait for it; null for nothing. */
    public function awaited(string $key): ?Awaited
    {
        foreach ($this->signOffs as $asked) {
            if ($asked->key === $key) {
                return $asked->awaited();
            }
        }
        foreach ($this->slips as $sent) {
            if ($sent->key === $key) {
                return $sent->moved->slip->awaited();
            }
        }

        foreach ($this->calls as $made) {
            if ($made->key === $key) {
                return CallMade::awaits($this->now);
            }
        }

        return $this->tasksGiven($key);
    }

    private function pencil(Pencilling $pencilling): void
    {
        $this->pencilled[] = $pencilling;
    }

    public function view(): View
    {
        return new View($this->record, $this->facts, $this->change);
    }

    public function number(): string
    {
        return $this->type->numberOf($this->record->id);
    }

    public function isSubject(Record $record): bool
    {
        return $record->id === $this->record->id && $record->type === $this->record->type;
    }

    /** Another record as it stands now, kept from being changed by others. */
    public function toChange(Record $record): ?Record
    {
        return $this->isSubject($record) ? $this->record : $this->facts->recordToChange($record->type, $record->id);
    }

    /** Sets a field of the record, or of another one that toChange() gave. */
    public function set(Field $field, string|int|bool|null $value, ?Record $target = null): void
    {
        $target ??= $this->record;
        if (! $this->isSubject($target) && $this->facts->lockOn($target->type, $target->id) !== null) {
            $this->failed("{$field->label} of {$this->called($target)}", 'it is locked until a sign-off has ended');

            return;
        }
        $before = $target->value($field->name);
        $this->outcomes[] = [
            'kind' => 'set', 'type' => $target->type, 'field' => $field->name, 'before' => $before, 'after' => $value,
            'changed' => $before !== $value, ...($this->isSubject($target) ? [] : ['on' => $this->named($target)]),
        ];
        if ($before !== $value) {
            $this->write($target, ComputedFields::with($this->typeOf($target), array_replace($target->values, [$field->name => $value])));
        }
    }

    /**
     * Makes a new record.
     *
     * @param  array<string, string|int|bool|null>  $given  values by field name
     */
    public function create(RecordType $type, array $given): Record
    {
        $values = [];
        foreach ($type->fields as $name => $field) {
            $values[$name] = $given[$name] ?? $field->begun();
        }
        $stamp = Value::instantText($this->now);
        $by = $this->change->actor;
        $values = ComputedFields::with($type, array_replace(
            $values,
            ['created_at' => $stamp, 'created_by' => $by, 'updated_at' => $stamp, 'updated_by' => $by],
        ));
        $record = new Record($type->name, $this->facts->freshId($type->name), 1, $values);
        $this->facts->lay($record);
        $this->marks->newVersion($record);
        $this->others["{$record->type}:{$record->id}"] = [null, $record];
        $this->outcomes[] = ['kind' => 'created', 'record' => $this->named($record)];

        return $record;
    }

    public function give(TaskGiven $task): void
    {
        $this->tasks[] = $task = $task->by($this->placed, $this->facts->told());
        if ($task->person !== null) {
            $this->facts->taskGiven($task->person->id);
        }
        $this->outcomes[] = [
            'kind' => 'task',
            'title' => $task->title,
            'person' => $task->person?->id,
            'path' => $task->path,
            'stoodIn' => $task->stoodIn,
            'due' => $task->due === null ? null : Value::instantText($task->due),
            ...$this->tells(),
        ];
    }

    public function askFor(SignOffAsked $asked): void
    {
        $this->signOffs[] = $asked;
        $this->outcomes[] = [
            'kind' => 'sign_off', 'status' => $asked->moved->signOff->status->value, 'asked' => $asked->waiting(), 'why' => $asked->why,
            ...$this->tells(),
        ];
    }

    public function sendSlip(SlipSent $sent): void
    {
        $this->slips[] = $sent;
        $turn = $sent->moved->slip->turn();
        foreach (array_filter([$turn->mail ?? $turn?->text]) as $address) {
            $this->facts->messageSent($address);
        }
        $events = $sent->moved->events;
        $this->outcomes[] = [
            'kind' => 'slip', 'subject' => $sent->subject, 'to' => $turn->name ?? '', 'channel' => $sent->channel->value,
            'path' => $events[count($events) - 1]->path ?? '', 'status' => $sent->moved->slip->status->value,
            ...$this->tells(Message::recordsOf(array_filter([$turn?->mail, $turn?->text]))),
        ];
    }

    public function call(CallMade $made): void
    {
        $this->calls[] = $made;
        $this->outcomes[] = ['kind' => 'call', 'endpoint' => $made->endpoint, 'fields' => count($made->payload)];
    }

    public function send(Message $message): void
    {
        $this->messages[] = $message = $message->telling($this->facts->told());
        foreach ([...$message->to, ...$message->cc] as $address) {
            $this->facts->messageSent($address);
        }
        $this->outcomes[] = [
            'kind' => 'message',
            'channel' => $message->channel->value,
            'to' => $message->toText(),
            'subject' => $message->subject,
            'path' => $message->path,
            'missing' => $message->missing,
            ...$this->tells($message->reaches()),
        ];
    }

    public function comment(Record $record, string $text): void
    {
        $this->comments[] = [$record, $text, $this->facts->told()];
        $this->outcomes[] = [
            'kind' => 'comment', 'text' => $text, ...($this->isSubject($record) ? [] : ['on' => $this->named($record)]), ...$this->tells(),
        ];
    }

    public function follow(Person $person, bool $follows, string $path): void
    {
        $this->follows[] = [$this->record, $person->id, $follows];
        $this->outcomes[] = ['kind' => 'follow', 'person' => $person->id, 'follows' => $follows, 'path' => $path];
    }

    public function refuse(?Field $field, string $message): void
    {
        // The message belongs at a field only when it is a field of the record the person saves.
        $this->refusal = [$this->change->isAbout($this->record) ? $field?->name : null, $message];
    }

    /** A line could not be done; the save goes on, and the entry says why. */
    public function failed(string $what, string $why): void
    {
        $this->outcomes[] = ['kind' => 'failed', 'label' => $what, 'why' => $why];
    }

    /** A line that meant more records than it takes. */
    public function cutOff(string $what, int $done, int $of): void
    {
        $this->outcomes[] = ['kind' => 'cut_off', 'label' => $what, 'done' => $done, 'of' => $of];
    }

    /**
     * Which of some cases it is.
     *
     * @param  string  $case  as it reads; empty for none of them
     * @param  string  $why  what did not hold; empty where the case says what did
     */
    public function decided(string $case, string $why): void
    {
        $this->outcomes[] = ['kind' => 'case', 'label' => $case, 'why' => $why];
    }

    /** A line of which its own condition did not hold. */
    public function skipped(string $what, string $why): void
    {
        $this->outcomes[] = ['kind' => 'skipped', 'label' => $what, 'why' => $why];
    }

    /** @return list<array{?Record, Record}> other records that the lines changed or made */
    public function others(): array
    {
        return array_values($this->others);
    }

    /** @return list<array{Record, Event}> what the lines caused besides changes */
    public function events(string $firing, int $rule): array
    {
        $events = [];
        foreach ($this->comments as $index => [$record, $text, $tells]) {
            $events[] = [$record, new Event(EventKind::Comment, 'comment:'.substr(sha1("{$rule}:{$firing}:{$index}"), 0, 24), $text,
                tells: $tells)];
        }

        return $events;
    }

    /**
     * What the text of the line at hand shows, as an entry keeps it: nothing for nothing, as of most.
     *
     * @param  list<string>  $besides
     * @return array{tells?: list<string>}
     */
    private function tells(array $besides = []): array
    {
        $tells = [...$this->facts->told(), ...$besides];

        return $tells === [] ? [] : ['tells' => $tells];
    }

    /** @return array{type: string, id: int, title: string|int|bool|null} a record as an entry keeps it, with the title it has now */
    private function named(Record $record): array
    {
        return ['type' => $record->type, 'id' => $record->id, 'title' => $record->value($this->typeOf($record)->title)];
    }

    /** What a record is called in an entry: "Customer C-0012, Brine & Barrow Hotel". */
    public function called(Record $record): string
    {
        $type = $this->typeOf($record);
        $title = $record->value($type->title);

        return "{$type->label} {$type->numberOf($record->id)}".(is_string($title) ? ", {$title}" : '');
    }

    public function typeOf(Record $record): RecordType
    {
        return $this->schema->type($record->type) ?? throw new \LogicException("There is no record type {$record->type}.");
    }

    /** @param  array<string, string|int|bool|null>  $values */
    private function write(Record $before, array $values): void
    {
        $version = $before->version;
        if (! $this->marks->hasNewVersion($before)) {
            $version++;
            $values = array_replace($values, ['updated_at' => Value::instantText($this->now), 'updated_by' => $this->change->actor]);
            $this->marks->newVersion($before);
        }
        $after = new Record($before->type, $before->id, $version, $values);
        $this->facts->lay($after);
        if ($this->isSubject($before)) {
            $this->record = $after;
        } else {
            $key = "{$before->type}:{$before->id}";
            $this->others[$key] = [array_key_exists($key, $this->others) ? $this->others[$key][0] : $before, $after];
        }
        foreach ($this->made as $name => $made) {
            if ($made->type === $after->type && $made->id === $after->id) {
                $this->made[$name] = $after;
            }
        }
    }
}
