<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Condition\ChildrenRead;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;

/** What has to happen before a rule looks at all; the index of the rules in force is made of these. */
final readonly class Watch
{
    private const CREATED = '+';

    private const DELETED = '-';

    public const ANY_FIELD = '*';

    /**
     * @param  string  $type  name of the record type that is watched
     * @param  ?list<string>  $fields  whose change on an existing record matters; null for every field, an empty list for none
     * @param  list<EventKind>  $events
     */
    public function __construct(
        public string $type,
        public bool $created = false,
        public ?array $fields = [],
        public bool $deleted = false,
        public array $events = [],
    ) {
    }

    /** What may alter the children on which a decision turns. */
    public static function ofChildren(ChildrenRead $read): self
    {
        return new self($read->type, created: true, fields: $read->fields, deleted: true);
    }

    /** @param  ?list<string>  $fields */
    public function withFields(?array $fields): self
    {
        return new self($this->type, $this->created, $fields, $this->deleted, $this->events);
    }

    /** @return list<string> the keys under which an index keeps the rule */
    public function keys(): array
    {
        return [
            ...($this->created ? [self::CREATED] : []),
            ...($this->deleted ? [self::DELETED] : []),
            ...array_map(self::eventKey(...), $this->events),
            ...($this->fields ?? [self::ANY_FIELD]),
        ];
    }

    /** @return list<string> the keys under which an index finds the rules that watch for a change; empty when none can */
    public static function keysOf(Change $change): array
    {
        if ($change->event !== null) {
            return [self::eventKey($change->event->kind)];
        }
        if ($change->before === null) {
            return [self::CREATED];
        }
        if ($change->after === null) {
            return [self::DELETED];
        }
        $fields = $change->fields();

        return $fields === [] ? [] : [self::ANY_FIELD, ...$fields];
    }

    private static function eventKey(EventKind $kind): string
    {
        return "!{$kind->value}";
    }
}
