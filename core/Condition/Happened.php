<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use Closure;
use VividLedger\Engine\View;
use VividLedger\Record\Display;
use VividLedger\Record\EventKind;

/** What is being answered is an event of a kind: a reply, a comment, a file, a task done. Said of what ends a run. */
final readonly class Happened implements Condition
{
    public const EVENTS = [EventKind::Reply, EventKind::Comment, EventKind::File, EventKind::TaskDone];

    public function __construct(private EventKind $event, private string $text)
    {
    }

    public function compile(): Closure
    {
        return fn (View $view): bool => $view->ownChange()?->event?->kind === $this->event;
    }

    /** A query has no change, and so nothing happened. */
    public function query(QueryWriter $writer): mixed
    {
        return $writer->never();
    }

    public function explain(View $view, Display $display): Finding
    {
        return new Finding($this->text, ($this->compile())($view), $view->change?->event?->kind->label() ?? 'no event');
    }

    public function paths(): array
    {
        return [];
    }
}
