<?php

declare(strict_types=1);

namespace VividLedger\Facts;

use VividLedger\Record\Change;
use VividLedger\Record\PersonRecord;
use VividLedger\Record\Record;
use VividLedger\Schema\FieldType;
use VividLedger\Schema\Path;
use VividLedger\Schema\Readable;

/** A record together with what can be reached from it, and the change that made somebody look. */
final readonly class View
{
    public function __construct(
        public Record $record,
        public Facts $facts,
        public ?Change $change = null,
    ) {
    }

    /** The change, when it is one of this very record. */
    public function ownChange(): ?Change
    {
        return $this->change?->isAbout($this->record) === true ? $this->change : null;
    }

    /** What stands at the end of a path, or is reckoned; null when it, or a record on the way, is empty. */
    public function value(Readable $what): string|int|bool|null
    {
        return match (true) {
            $what instanceof Path => $this->follow($what->hops)?->values[$what->field->name] ?? null,
            $what instanceof Derived => $what->value($this),
            default => throw new \LogicException("{$what->label()} cannot be read."),
        };
    }

    /** A text shows what stands at the end of a path: whoever may not see that is not shown the text. */
    public function tells(Path $path): void
    {
        $record = $this->record;
        foreach ([...$path->hops, $path->field] as $field) {
            $this->tellsField($record->type, $record->id, $field->name);
            $id = $record->values[$field->name] ?? null;
            $next = is_int($id) && $field->target !== null ? $this->facts->record($field->target, $id) : null;
            if ($next === null) {
                return;
            }
            $record = $next;
        }
        // The title of the record that the last of them leads to.
        $this->tellsField($record->type, $record->id, '');
    }

    /** The same of a field of a record at hand; of the record as such, where none is named. */
    public function tellsField(string $type, int $id, string $field): void
    {
        if ($this->facts instanceof OverlayFacts) {
            $this->facts->tell("{$type}:{$id}:{$field}");
        }
    }

    /**
     * The record at the end of a chain of references.
     *
     * @param  list<\VividLedger\Schema\Field>  $hops
     */
    public function follow(array $hops): ?Record
    {
        $record = $this->record;
        foreach ($hops as $hop) {
            $id = $record->values[$hop->name] ?? null;
            $record = match (true) {
                ! is_int($id) => null,
                $hop->type === FieldType::Person => ($person = $this->facts->person($id)) === null ? null : PersonRecord::of($person),
                default => $hop->target === null ? null : $this->facts->record($hop->target, $id),
            };
            if ($record === null) {
                return null;
            }
        }

        return $record;
    }
}
