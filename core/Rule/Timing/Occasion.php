<?php

declare(strict_types=1);

namespace VividLedger\Rule\Timing;

use VividLedger\Facts\Awaited;
use VividLedger\House\Calendars;
use VividLedger\House\Person;
use VividLedger\Record\Record;
use VividLedger\Time\Due;
use VividLedger\Time\OutOfTime;

/** What the moment of a line can depend on. */
final readonly class Occasion
{
    /**
     * @param  \DateTimeImmutable  $started  when the rule fired
     * @param  int  $turn  the how-manieth time, from 1
     * @param  ?\DateTimeImmutable  $met  when what the line waits for became true; null while it has not
     * @param  ?Awaited  $tasks  of the line it waits for; null when there are none yet
     */
    public function __construct(
        public \DateTimeImmutable $started,
        public Record $record,
        public Calendars $calendars,
        public ?Person $owner,
        public \DateTimeZone $zone,
        public int $turn = 1,
        public ?Awaited $tasks = null,
        public ?\DateTimeImmutable $met = null,
    ) {
    }

    /** The moment so far from a base. The company tells the time in its own zone, whatever zone its calendar was written in. */
    public function reckon(Due $due, \DateTimeImmutable $base): \DateTimeImmutable
    {
        $calendar = $due->needsCalendar() ? $this->calendars->calendar($due->ownersClock ? $this->owner : null) : null;

        return $due->from($base, $due->ownersClock && $calendar !== null ? $calendar->zone : $this->zone, $calendar);
    }

    /** When a timing says; null also where that lies beyond all years, so that what waits for it waits for ever. */
    public function when(Timing $timing): ?\DateTimeImmutable
    {
        try {
            return $timing->due($this);
        } catch (OutOfTime) {
            return null;
        }
    }

    public function atTurn(int $turn): self
    {
        return new self(
            started: $this->started, record: $this->record, calendars: $this->calendars, owner: $this->owner, zone: $this->zone,
            turn: $turn, tasks: $this->tasks, met: $this->met,
        );
    }
}
