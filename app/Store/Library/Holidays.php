<?php

declare(strict_types=1);

namespace App\Store\Library;

use App\Store\DomainError;
use App\Store\Tasks\CalendarFile;
use Sabre\VObject\Component;
use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Property\ICalendar\DateTime;
use Sabre\VObject\Recur\EventIterator;
use Sabre\VObject\Recur\MaxInstancesExceededException;
use Sabre\VObject\Recur\NoInstancesException;
use VividLedger\Words\Words;

/**
 * The days of an iCalendar file (RFC 5545): each day that an event covers, also one that comes again every year, on further dates, or but
 * for some. What is not taken in is said.
 */
final class Holidays
{
    public const MOST = 2000;

    private const LENGTH = 120;

    /** What comes again for ever is taken in for so many years. */
    private const YEARS = 10;

    /** @var array<string, string> names by date */
    private array $days = [];

    /** @var list<string> */
    private array $said = [];

    private readonly \DateTimeImmutable $until;

    private function __construct(private readonly \DateTimeZone $zone, \DateTimeImmutable $now)
    {
        $this->until = $now->modify('+'.self::YEARS.' years');
    }

    /**
     * @return array{array<string, string>, list<string>} names by date, and what of the file is not among them
     *
     * @throws DomainError at "/text" when it cannot be read, or has no event
     */
    public static function of(string $ics, \DateTimeImmutable $now): array
    {
        $holidays = new self(new \DateTimeZone('UTC'), $now);
        foreach (CalendarFile::read($ics)->calendars as $calendar) {
            $holidays->take($calendar);
        }
        ksort($holidays->days);
        if ($holidays->days === []) {
            throw DomainError::at('/text', $holidays->said[0] ?? Words::say('There is no event in this file.'));
        }

        return [$holidays->days, $holidays->said];
    }

    private function take(VCalendar $calendar): void
    {
        $byUid = [];
        foreach ($calendar->select('VEVENT') as $place => $event) {
            $byUid[(string) ($event->UID ?? "none {$place}")][] = $event;
        }
        foreach ($byUid as $events) {
            $title = self::title($events[0]);
            $single = count($events) === 1 && ! isset($events[0]->RRULE) && ! isset($events[0]->RDATE);
            try {
                $single ? $this->single($events[0], $title) : $this->repeated($events, $title);
            } catch (NoInstancesException) {
                // All of its days are left out.
            } catch (MaxInstancesExceededException) {
                $this->said[] = Words::say('“{title}” comes again so often that not all of it is taken in.', title: $title);
            } catch (\Exception) {
                throw DomainError::at('/text', Words::say('A date in this file cannot be read.'));
            }
        }
    }

    private function single(Component $event, string $title): void
    {
        if (self::isCancelled($event)) {
            $this->said[] = Words::say('“{title}” is cancelled, and left out.', title: $title);
        } elseif (($start = $event->DTSTART ?? null) instanceof DateTime) {
            $from = CalendarFile::moment($start, $this->zone);
            $this->cover($from, $this->end($event, $start), $title);
        }
    }

    /** @param  list<Component>  $events  what comes again, and what is otherwise on single days of it */
    private function repeated(array $events, string $title): void
    {
        $main = array_values(array_filter($events, static fn (Component $event): bool => ! isset($event->{'RECURRENCE-ID'})))[0]
            ?? $events[0];
        if (self::isCancelled($main)) {
            $this->said[] = Words::say('“{title}” is cancelled, and left out.', title: $title);

            return;
        }
        $every = new EventIterator($events, null, $this->zone);
        for (; $every->valid(); $every->next()) {
            $from = \DateTimeImmutable::createFromInterface($every->getDtStart());
            if ($from > $this->until) {
                $this->said[] = Words::say('“{title}” comes again for ever; it is taken in until {year}.', title: $title,
                    year: $this->until->format('Y'));
                break;
            }
            if (count($this->days) >= self::MOST) {
                throw new MaxInstancesExceededException;
            }
            $one = $every->getEventObject();
            if (! self::isCancelled($one)) {
                $this->cover($from, \DateTimeImmutable::createFromInterface($every->getDtEnd()), self::title($one));
            }
        }
    }

    /** By the clock of the event itself. */
    private function end(Component $event, DateTime $start): \DateTimeImmutable
    {
        $end = $event->DTEND ?? null;

        return match (true) {
            $end instanceof DateTime => CalendarFile::moment($end, $this->zone),
            default => CalendarFile::moment($start, $this->zone, (string) ($event->DURATION ?? 'P1D')),
        };
    }

    private function cover(\DateTimeImmutable $from, \DateTimeImmutable $to, string $title): void
    {
        for ($day = $from; $day->format('Y-m-d') === $from->format('Y-m-d') || ($day < $to && count($this->days) < self::MOST);
            $day = $day->modify('+1 day')) {
            $this->days[$day->format('Y-m-d')] = $title;
        }
    }

    private static function title(Component $event): string
    {
        return mb_substr(trim((string) ($event->SUMMARY ?? '')), 0, self::LENGTH);
    }

    private static function isCancelled(Component $event): bool
    {
        return strtoupper(trim((string) ($event->STATUS ?? ''))) === 'CANCELLED';
    }
}
