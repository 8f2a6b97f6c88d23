<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\House\Person;
use VividLedger\Record\Record;

/** A task that a line hands out. */
final readonly class TaskGiven
{
    /**
     * @param  string  $path  how the person was found
     * @param  bool  $stoodIn  whether the person is the company's fallback
     * @param  ?array{string, int}  $about  type and id of a contact the task stands on besides its record
     * @param  string  $key  of the line that gave it, by which others wait for it
     * @param  ?int  $place  of that line in its page
     * @param  bool  $lapses  whether that line says what makes it lapse
     * @param  list<string>  $tells  what its text shows, each a type, the id of a record, and a field of it
     */
    public function __construct(
        public string $title,
        public ?Person $person,
        public string $path,
        public bool $stoodIn,
        public ?\DateTimeImmutable $due,
        public Record $record,
        public string $notes = '',
        public TaskPriority $priority = TaskPriority::Normal,
        public ?array $about = null,
        public string $key = '',
        public ?int $place = null,
        public bool $lapses = false,
        public array $tells = [],
    ) {
    }

    /**
     * The same, as the task of a line.
     *
     * @param  list<string>  $tells
     */
    public function by(?Placed $placed, array $tells): self
    {
        return new self(
            title: $this->title, person: $this->person, path: $this->path, stoodIn: $this->stoodIn, due: $this->due,
            record: $this->record, notes: $this->notes, priority: $this->priority, about: $this->about, key: $placed->key ?? '',
            place: $placed?->place, lapses: $placed?->lapses !== null, tells: $tells,
        );
    }
}
