<?php

declare(strict_types=1);

namespace VividLedger\Proofread\Check;

use VividLedger\House\Calendars;
use VividLedger\House\Person;
use VividLedger\Proofread\Level;
use VividLedger\Proofread\Remark;
use VividLedger\Proofread\RuleAmongOthers;
use VividLedger\Record\Record;
use VividLedger\Rule\Limits;
use VividLedger\Rule\Line\Placed;
use VividLedger\Rule\Timing\Occasion;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Time\WorkingHours;
use VividLedger\Words\Words;

/**
 * Messages meant for different days that leave in the same minute, because the limits hold both back until then. It is tried on each
 * day of two made-up weeks, whose calendar has a long weekend.
 */
final class FallTogether implements Check
{
    /** A Monday, and the holiday before the weekend of that week. */
    private const BEGINS = '2026-11-30T10:00:00Z';

    private const HOLIDAY = '2026-12-04';

    private const DAYS = 14;

    public function remarks(RuleAmongOthers $among): array
    {
        $limits = $among->rule->limits;
        if ($limits === null || $limits->hours === null || $limits->caps()) {
            return [];
        }
        $messages = array_values(array_filter(
            $among->rule->lines,
            static fn (Placed $placed): bool => $placed->isMessage() && $placed->timing?->seconds() !== null,
        ));
        foreach ($messages as $nth => $later) {
            foreach (array_slice($messages, 0, $nth) as $earlier) {
                if ($earlier->under === $later->under && $this->meet($earlier, $later, $limits, $among)) {
                    return [
                        new Remark(
                            level: Level::Note, at: "/lines/{$later->place}/at", code: 'fall_together',
                            message: Words::say(
                                'After days off, lines {earlier} and {line} may leave in the same minute, though meant for different days.',
                                earlier: $earlier->place + 1, line: $later->place + 1,
                            ),
                            advice: Words::say('Keep messages apart: never more than 1 message in 1 working day to one address.'),
                        ),
                    ];
                }
            }
        }

        return [];
    }

    private function meet(Placed $earlier, Placed $later, Limits $limits, RuleAmongOthers $among): bool
    {
        $zone = new \DateTimeZone('UTC');
        $calendars = self::calendars($zone);
        for ($day = 0; $day < self::DAYS; $day++) {
            $occasion = new Occasion(
                started: (new \DateTimeImmutable(self::BEGINS))->modify("+{$day} days"), record: new Record($among->rule->on, 0, 1, []),
                calendars: $calendars, owner: null, zone: $zone,
            );
            $meant = array_map(
                static fn (Placed $placed): ?\DateTimeImmutable => $placed->timing === null ? null : $occasion->when($placed->timing),
                [$earlier, $later],
            );
            if ($meant[0] !== null && $meant[1] !== null && $meant[0]->format('Y-m-d') !== $meant[1]->format('Y-m-d')
                && $limits->allowed($meant[0], $occasion) == $limits->allowed($meant[1], $occasion)) {
                return true;
            }
        }

        return false;
    }

    private static function calendars(\DateTimeZone $zone): Calendars
    {
        $hours = WorkingHours::of(array_fill(1, 5, [['09:00', '17:00']]), [self::HOLIDAY]);

        return new class(new WorkingCalendar($hours, $zone)) implements Calendars
        {
            public function __construct(private readonly WorkingCalendar $calendar)
            {
            }

            public function calendar(?Person $person): WorkingCalendar
            {
                return $this->calendar;
            }
        };
    }
}
