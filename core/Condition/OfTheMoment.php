<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Time\WorkingCalendar;

/** A condition that looks at the moment alone, when it is judged: the same for every record, so a query has only its answer. */
abstract readonly class OfTheMoment implements Spoken, Statement
{
    public function __construct(protected \DateTimeZone $zone, protected bool $negated, protected string $text)
    {
    }

    public function compile(): Closure
    {
        return fn (View $view): bool => $this->holds(
            $view->facts->now(),
            static fn (): WorkingCalendar => $view->facts->calendar(null),
        );
    }

    public function query(QueryWriter $writer): mixed
    {
        return $this->holds($writer->now(), $writer->calendar(...)) ? $writer->all([]) : $writer->never();
    }

    public function explain(View $view, Display $display): Finding
    {
        return new Finding($this->text, ($this->compile())($view), $view->facts->now()->setTimezone($this->zone)->format('D j M Y H:i'));
    }

    public function paths(): array
    {
        return [];
    }

    public function atom(): Atom
    {
        return Atom::free($this);
    }

    /** @param  Closure(): WorkingCalendar  $calendar  of the company; fetched only where it is asked for */
    abstract protected function isAt(\DateTimeImmutable $at, Closure $calendar): bool;

    /** @param  Closure(): WorkingCalendar  $calendar */
    private function holds(\DateTimeImmutable $at, Closure $calendar): bool
    {
        return $this->isAt($at, $calendar) !== $this->negated;
    }
}
