<?php

declare(strict_types=1);

namespace App\Store\Tasks;

/** A to-do of a calendar file, and what it comes to here. */
final readonly class CalendarTask
{
    /**
     * @param  string  $uid  by which the calendar knows it
     * @param  ?int  $task  the one here that it is; null for one that is not here yet
     * @param  string  $what  "given", "moved", "done", "left" when it is not taken in, or "same" when nothing comes of it
     * @param  list<string>  $said  what of it is not taken in, and how it was understood
     */
    public function __construct(
        public string $uid,
        public string $title,
        public string $notes,
        public string $priority,
        public ?\DateTimeImmutable $due,
        public ?int $task,
        public string $what,
        public array $said = [],
    ) {
    }
}
