<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Condition\Condition;
use VividLedger\Rule\Cases\Cases;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Timing\Timing;
use VividLedger\Time\Due;

/** A line in its place on the page, with its time in the margin. */
final readonly class Placed
{
    /**
     * @param  int  $place  in the page's file, from 0
     * @param  ?Timing  $timing  null for at once
     * @param  ?Due  $tooLate  how long after its time it is left out; null when it is never too late
     * @param  string  $key  by which other lines name it; empty for none
     * @param  string  $said  the line as it reads
     * @param  ?Condition  $lapses  what takes the point from the tasks it gives; null when nothing does
     * @param  ?int  $under  place of the heading of the case it stands in; null where it stands in none
     */
    public function __construct(
        public int $place,
        public Performed $line,
        public string $kind = '',
        public ?Timing $timing = null,
        public ?Due $tooLate = null,
        public string $key = '',
        public string $said = '',
        public ?Condition $lapses = null,
        public ?int $under = null,
    ) {
    }

    public function perform(ActionContext $performance): void
    {
        $performance->facts->startTelling();
        $finding = $this->lapses?->explain($performance->view(), $performance->display);
        if ($finding?->held === true) {
            $performance->skipped($this->said, 'its task would lapse at once: '.$finding->hit());
        } else {
            $this->line->perform($performance);
        }
    }

    /** The same line in a case, and with the cases that it begins. */
    public function placedUnder(?int $heading, ?Cases $cases): self
    {
        return new self(
            place: $this->place, line: $cases ?? $this->line, kind: $this->kind, timing: $this->timing, tooLate: $this->tooLate,
            key: $this->key, said: $this->said, lapses: $this->lapses, under: $heading,
        );
    }

    /** @return list<self> the line, and what is done as soon as it is */
    public function withItsCases(): array
    {
        return [$this, ...($this->line instanceof Cases ? $this->line->atOnce() : [])];
    }

    /** Whether it reaches for people, so that quiet hours hold it back even when it is due at once. */
    public function isMessage(): bool
    {
        return $this->bare() instanceof Reaches;
    }

    /** The line without its own condition. */
    public function bare(): Performed
    {
        return $this->line instanceof OnlyIf ? $this->line->line : $this->line;
    }
}
