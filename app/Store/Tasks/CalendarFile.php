<?php

declare(strict_types=1);

namespace App\Store\Tasks;

use App\Store\DomainError;
use Sabre\VObject\Component;
use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\DateTimeParser;
use Sabre\VObject\EofException;
use Sabre\VObject\Parameter;
use Sabre\VObject\ParseException;
use Sabre\VObject\Parser\MimeDir;
use Sabre\VObject\Parser\Parser;
use Sabre\VObject\Property\ICalendar\DateTime;
use Sabre\VObject\TimeZoneUtil;
use VividLedger\Words\Words;

/** An iCalendar file (RFC 5545), of which one may hold several calendars, with the time zones that it brings along. */
final readonly class CalendarFile
{
    /** @param  list<VCalendar>  $calendars */
    private function __construct(public array $calendars)
    {
    }

    /** @throws DomainError at "/text" when it is none */
    public static function read(string $ics): self
    {
        $stream = fopen('php://memory', 'r+') ?: throw new \RuntimeException('There is no memory.');
        fwrite($stream, rtrim($ics)."\r\n");
        rewind($stream);
        $calendars = [];
        try {
            $parser = new MimeDir($stream, Parser::OPTION_FORGIVING);
            for (; ;) {
                $calendar = $parser->parse();
                $calendars[] = $calendar instanceof VCalendar ? $calendar : throw new ParseException('something else');
            }
        } catch (EofException) {
            // Behind the last of them.
        } catch (ParseException|\TypeError) {
            throw self::none();
        }

        return $calendars === [] ? throw self::none() : new self($calendars);
    }

    /** @return list<Component> in the order of the file */
    public function all(string $name): array
    {
        return array_merge(...array_map(static fn (VCalendar $calendar): array => array_values($calendar->select($name)),
            $this->calendars));
    }

    /**
     * @param  \DateTimeZone  $else  for what has no zone, and for zones that nobody knows
     * @param  string  $later  a length of time from it on, such as "P1DT2H": its days are days of the wall clock, its hours are
     *                         hours (§3.3.6); "" for the moment itself
     *
     * @throws \Exception when it cannot be read
     */
    public static function moment(DateTime $at, \DateTimeZone $else, string $later = ''): \DateTimeImmutable
    {
        $days = $later === '' ? new \DateInterval('PT0S') : self::duration($later);
        $hours = clone $days;
        $days->h = $days->i = $days->s = $hours->y = $hours->m = $hours->d = 0;
        $value = (string) $at;
        $id = self::zoneName($at);
        $local = DateTimeParser::parseDateTime(rtrim($value, 'Z').($at->hasTime() ? '' : 'T000000'), new \DateTimeZone('UTC'))->add($days);
        $zone = match (true) {
            ! $at->hasTime() => $else,
            str_ends_with($value, 'Z') => new \DateTimeZone('UTC'),
            $id === '' => $else,
            default => self::zone($at, $id, $local) ?? $else,
        };

        return (new \DateTimeImmutable($local->format('Y-m-d\TH:i:s'), $zone))->add($hours);
    }

    /** @return ?string the name of the zone of a moment, where neither the file nor anybody here knows it */
    public static function unknownZone(DateTime $at): ?string
    {
        $id = self::zoneName($at);

        return $id === '' || ! $at->hasTime() || str_ends_with((string) $at, 'Z')
            || self::zone($at, $id, DateTimeParser::parseDateTime((string) $at, new \DateTimeZone('UTC'))) !== null ? null : $id;
    }

    /** A zone by its name, else as the file tells it (§3.6.5), else as programs have called it. */
    private static function zone(DateTime $at, string $id, \DateTimeImmutable $local): ?\DateTimeZone
    {
        if (in_array($id, \DateTimeZone::listIdentifiers(\DateTimeZone::ALL_WITH_BC), true)) {
            return new \DateTimeZone($id);
        }
        $root = $at;
        while ($root->parent !== null) {
            $root = $root->parent;
        }
        foreach ($root instanceof VCalendar ? $root->select('VTIMEZONE') : [] as $told) {
            $offset = (string) ($told->TZID ?? '') === $id ? FileZone::offset($told, $local) : null;
            if ($offset !== null) {
                return new \DateTimeZone(sprintf('%s%02d:%02d', $offset < 0 ? '-' : '+', intdiv(abs($offset), 3600),
                    intdiv(abs($offset), 60) % 60));
            }
        }
        try {
            return TimeZoneUtil::getTimeZone($id, null, true);
        } catch (\InvalidArgumentException) {
            return null;
        }
    }

    /** How long something takes (§3.3.6). */
    private static function duration(string $text): \DateInterval
    {
        $interval = DateTimeParser::parseDuration($text);

        return $interval instanceof \DateInterval ? $interval : throw new \DomainException('no length of time');
    }

    private static function zoneName(DateTime $at): string
    {
        $zone = $at['TZID'];

        return $zone instanceof Parameter ? (string) $zone->getValue() : '';
    }

    private static function none(): DomainError
    {
        return DomainError::at('/text', Words::say('This is not an iCalendar file.'));
    }
}
