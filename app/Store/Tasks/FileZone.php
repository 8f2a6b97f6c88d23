<?php

declare(strict_types=1);

namespace App\Store\Tasks;

use Sabre\VObject\Component;
use Sabre\VObject\DateTimeParser;
use Sabre\VObject\Recur\RRuleIterator;

/** A time zone as a file tells it (RFC 5545 §3.6.5): standard and summer time, each with when it begins and by how much it differs. */
final class FileZone
{
    /** So many beginnings of one are looked at; a file that has more is not meant well. */
    private const MOST = 2000;

    /** @return ?int seconds ahead of UTC at a local time, which is given as if it were one of UTC; null where the file does not say */
    public static function offset(Component $zone, \DateTimeImmutable $local): ?int
    {
        [$latest, $offset, $first, $before] = [null, null, null, null];
        foreach (['STANDARD', 'DAYLIGHT'] as $name) {
            foreach ($zone->select($name) as $observance) {
                $to = self::seconds((string) ($observance->TZOFFSETTO ?? ''));
                foreach ($to === null ? [] : self::beginnings($observance, $local) as $beginning) {
                    if ($beginning <= $local && ($latest === null || $beginning > $latest)) {
                        [$latest, $offset] = [$beginning, $to];
                    }
                    if ($first === null || $beginning < $first) {
                        [$first, $before] = [$beginning, self::seconds((string) ($observance->TZOFFSETFROM ?? '')) ?? $to];
                    }
                }
            }
        }

        return $offset ?? $before;
    }

    /** @return iterable<\DateTimeImmutable> when it begins, by the clock that was in use until then */
    private static function beginnings(Component $observance, \DateTimeImmutable $local): iterable
    {
        $utc = new \DateTimeZone('UTC');
        $start = DateTimeParser::parseDateTime((string) ($observance->DTSTART ?? ''), $utc);
        yield $start;
        foreach ($observance->select('RDATE') as $dates) {
            foreach (explode(',', (string) $dates) as $date) {
                yield DateTimeParser::parseDateTime(strlen($date) === 8 ? "{$date}T000000" : rtrim($date, 'Z'), $utc);
            }
        }
        if (isset($observance->RRULE)) {
            $rule = new RRuleIterator((string) $observance->RRULE, $start);
            for ($count = 0; $rule->valid() && $count < self::MOST; $count++, $rule->next()) {
                $at = $rule->current();
                if ($at === null || $at > $local) {
                    break;
                }
                yield $at instanceof \DateTimeImmutable ? $at : \DateTimeImmutable::createFromInterface($at);
            }
        }
    }

    /** "+0545" and "-023015". */
    private static function seconds(string $offset): ?int
    {
        return preg_match('/^([+-])(\d{2})(\d{2})(\d{2})?$/', $offset, $part) === 1
            ? ($part[1] === '-' ? -1 : 1) * ((int) $part[2] * 3600 + (int) $part[3] * 60 + (int) ($part[4] ?? 0)) : null;
    }
}
