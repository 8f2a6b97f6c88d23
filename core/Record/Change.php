<?php

declare(strict_types=1);

namespace VividLedger\Record;

/** One save of one record, or one event at it. */
final class Change
{
    /** Kept by the application; their change is never news. */
    private const STAMPS = ['updated_at' => true, 'updated_by' => true, 'created_at' => true, 'created_by' => true];

    /** @var ?list<string> */
    private ?array $fields = null;

    /**
     * @param  ?Record  $before  null when the record was created
     * @param  ?Record  $after  null when the record was deleted; the same as before for an event
     * @param  ?int  $actor  id of the person; null when nobody in person made it
     * @param  ?string  $againFor  "type:id" of the one record for which a change comes again that was saved before, because its rules
     *     could not answer it then; null for a change that is new
     * @param  ?Alteration  $told  for an event in which an earlier change goes on: what that change was
     */
    public function __construct(
        public readonly ?Record $before,
        public readonly ?Record $after,
        public readonly ?int $actor,
        public readonly \DateTimeImmutable $at,
        public readonly CauseKind $cause = CauseKind::Person,
        public readonly ?Event $event = null,
        private readonly ?Alteration $told = null,
        public readonly ?string $againFor = null,
    ) {
        if ($before === null && $after === null) {
            throw new \LogicException('A change has a record before it, after it, or both.');
        }
    }

    public static function event(
        Record $record,
        Event $event,
        ?int $actor,
        \DateTimeImmutable $at,
        CauseKind $cause = CauseKind::Person,
        ?Alteration $told = null,
    ): self {
        return new self(
            before: $record, after: $record, actor: $actor, at: $at, cause: $cause, event: $event, told: $told,
        );
    }

    /** The same once more, for one record whose rules could not answer it. */
    public function again(Record $now, Record $for, \DateTimeImmutable $at): self
    {
        $key = "{$for->type}:{$for->id}";

        return $this->event === null
            ? new self(
                before: $this->before, after: $this->after === null ? null : $now, actor: $this->actor, at: $at, cause: $this->cause,
                event: null, told: $this->told, againFor: $key,
            )
            : new self(
                before: $now, after: $now, actor: $this->actor, at: $at, cause: $this->cause, event: $this->event, told: $this->told,
                againFor: $key,
            );
    }

    /** What texts tell of it: of a line that falls due, the change that began its run. */
    public function alteration(): Alteration
    {
        return $this->told ?? Alteration::of($this);
    }

    /** The record the change is about: as it is now, or as it last was. */
    public function record(): Record
    {
        return $this->after ?? $this->before ?? throw new \LogicException('A change has a record.');
    }

    public function isAbout(Record $record): bool
    {
        $own = $this->record();

        return $own->id === $record->id && $own->type === $record->type;
    }

    /** A text that no other change of the same record has. */
    public function occasion(): string
    {
        return $this->event === null ? "version:{$this->record()->version}".($this->after === null ? ':deleted' : '') : $this->event->key;
    }

    /**
     * Names of the fields that differ, the application's own stamps left out.
     *
     * @return list<string> on creation those that are filled in
     */
    public function fields(): array
    {
        return $this->fields ??= $this->differing();
    }

    /** @return list<string> */
    private function differing(): array
    {
        $before = $this->before === null ? [] : $this->before->values;
        $differing = [];
        foreach ($this->after === null ? [] : $this->after->values as $name => $value) {
            if ($value !== ($before[$name] ?? null) && ! isset(self::STAMPS[$name])) {
                $differing[] = $name;
            }
        }

        return $differing;
    }
}
