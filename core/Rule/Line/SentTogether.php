<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Facts\Facts;
use VividLedger\House\Person;
use VividLedger\Message\Message;
use VividLedger\Record\Display;
use VividLedger\Time\WorkingCalendar;

/** A line that is done for a person, with all records that were put together for them. */
interface SentTogether
{
    /** @return non-empty-list<ListSection> what is gathered; the first is what the timetable puts together */
    public function sections(): array;

    /** Whether it shows their open tasks too. */
    public function wantsTasks(): bool;

    /**
     * @return ?array{Message, int, int} the message, how much was gathered, and how many rows found no room; null when there is nothing
     *     to show
     */
    public function message(
        Gathered $gathered,
        Person $person,
        Facts $facts,
        Display $display,
        \DateTimeZone $zone,
        WorkingCalendar $calendar,
    ): ?array;
}
